import { useTranslation } from 'react-i18next';
import type { Tray } from '@hand-relay/contract';
import { troubleOf, useNow, words } from '../state/index.ts';
import { Failed, Button, Loading, Sheet } from '../ui/index.ts';
import { ReleaseKeys } from './ReleaseKeys.tsx';
import { ReleaseLook } from './ReleaseLook.tsx';
import { useRelease } from './useRelease.ts';

/** What a release of these would do, and the keys that do it. */
export function ReleaseSheet({ tray, onClose }: { tray: Tray; onClose: () => void }) {
  const { t } = useTranslation();
  const now = useNow();
  const { look, failed, refused, busy, again, go } = useRelease(tray, null);
  return (
    <Sheet
      title={t('release.title')}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <ReleaseKeys
            orders={look?.orders ?? tray.orders.length}
            disabled={!look || look.units === 0}
            busy={busy}
            onGo={(how) => void go(how).then((done) => done && onClose())}
          />
        </>
      }
    >
      {failed && <Failed text={words(troubleOf(failed))} onRetry={again} />}
      {refused && <Failed text={words(troubleOf(refused))} />}
      {!look && !failed && <Loading rows={3} />}
      {look && <ReleaseLook look={look} now={now} />}
    </Sheet>
  );
}
