import type { Some } from '../same.ts';
import type { en } from '../en.ts';

/** What Floor, Bench and Dock borrow from other places, in German. */
export const others: Some<typeof en> = {
  hold: {
    stopNow: 'Halt: {{order}} ist gesperrt',
    inHand: 'Leg zurück in {{bin}}, was du dafür in der Hand hast. Was auf Platz {{position}} liegt, bleibt dort.',
    putBack: 'Die Ware zurücklegen',
    understood: 'Verstanden, weiter',
    onCart: '{{order}} auf Platz {{position}} ist gesperrt: {{why}} Lass es auf dem Wagen.',
  },
  order: {
    carrier: 'Spediteur',
    customer: 'Kunde',
    departure: 'Abfahrt',
    label: 'Etikett',
    lane: 'Spur',
    reason: 'Warum',
    reasonNeeded: 'Sag warum, mit mindestens drei Buchstaben.',
    shipTo: 'Lieferadresse',
    slip: 'Packzettel',
  },
  orders: { stage: 'Stand' },
  printing: { sent: 'Gesendet an {{printer}}' },
  release: { cancel: 'Nicht jetzt' },
  waves: {
    stops: 'Halte',
    state: {
      gathering: 'am Sammeln',
      planned: 'geplant',
      started: 'gestartet',
      done: 'fertig',
      cancelled: 'storniert',
    },
    runState: {
      planned: 'Geplant',
      waiting: 'Wartet',
      picking: 'Wird gepickt',
      left: 'Am Packplatz',
      done: 'Fertig',
      cancelled: 'Storniert',
    },
  },
};
