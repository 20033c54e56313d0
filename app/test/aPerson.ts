import type { Me } from '@hand-relay/contract';
import { usualSettings } from '@hand-relay/core/deciding/settings';

/** Somebody signed in at a site in UTC, as the server says it. */
export const aPerson = (rights: Me['person']['rights'] = []): Me => ({
  person: { id: 'p', name: 'P', roles: [], rights, language: null },
  site: { id: 's', code: 'S1', name: 'S', timeZone: 'UTC', currency: 'GBP' },
  sites: [],
  standins: true,
  version: { product: '0.0.0', app: null },
  accountChanges: [],
  settings: usualSettings,
  until: '2100-01-01T00:00:00.000Z',
  restored: null,
});
