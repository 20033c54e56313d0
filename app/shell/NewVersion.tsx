import { usePathname } from 'expo-router';
import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { isOutdated, takeNewVersion } from '../deviceCache/index.ts';
import { useOutbox } from '../offline/index.ts';
import { useMe } from '../state/index.ts';
import { Button, Signal } from '../ui/index.ts';
import { Bar } from './Bar.tsx';

/** Places where nothing is in hand: there the page may be reloaded without asking. */
const BETWEEN_WORK = ['/', '/floor', '/bench', '/dock', '/desk'];

/**
 * Reloads the page when the server has another build of the app: by itself where nothing is in hand and nothing is
 * unsent, else when somebody says so.
 */
export function NewVersion() {
  const { t } = useTranslation();
  const { version } = useMe();
  const path = usePathname();
  const { entries } = useOutbox();
  const [busy, setBusy] = useState(false);
  const outdated = isOutdated(version?.app);
  const unsent = entries.some((e) => !e.sent);
  // By itself only on coming to such a place: whoever is typing there is not torn away.
  useEffect(() => {
    if (outdated && !unsent && BETWEEN_WORK.includes(path)) void takeNewVersion(version.app!);
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [path]);
  if (!outdated) return null;
  return (
    <Bar
      action={
        !unsent && (
          <Button
            size="small"
            title={t('version.reload')}
            busy={busy}
            onPress={() => {
              setBusy(true);
              void takeNewVersion(version.app!);
            }}
          />
        )
      }
    >
      <Signal kind="quiet" size="body" text={t(unsent ? 'version.later' : 'version.ready')} />
    </Bar>
  );
}
