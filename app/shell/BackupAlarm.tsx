import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { api, useMay, useMe, useNow } from '../state/index.ts';
import { moment } from '../text/index.ts';
import { Button, Signal } from '../ui/index.ts';
import { Bar } from './Bar.tsx';

/** A backup is a matter of hours; a screen may be open for days. */
const LOOK_MS = 10 * 60_000;

/** Tells those who look after the house that a night's backup is missing. */
export function BackupAlarm() {
  const { t } = useTranslation();
  const { site } = useMe();
  const now = useNow();
  const router = useRouter();
  const { data } = api.useBackupsQuery(undefined, { skip: !useMay('house.backups'), pollingInterval: LOOK_MS });
  if (data?.state !== 'late' && data?.state !== 'failed') return null;
  const newest = data.files[0];
  const since = newest ? moment(newest.at, site.timeZone, now) : '';
  return (
    <Bar action={<Button size="small" title={t('backup.look')} onPress={() => router.navigate('/setup/backups')} />}>
      <Signal
        kind={data.failed ? 'refused' : 'caution'}
        size="body"
        text={
          data.failed
            ? t(`backup.failed.${data.failed.place}`, { why: t(`backup.why.${data.failed.why}`) })
            : t(newest ? 'backup.late' : 'backup.none', { since })
        }
      />
    </Bar>
  );
}
