import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { remember, remembered, useMe, useNow } from '../state/index.ts';
import { moment } from '../text/index.ts';
import { Button, Signal } from '../ui/index.ts';
import { Bar } from './Bar.tsx';

/** Under this the device remembers that its people have read of a restore. */
const READ = 'restore-read';
/** After so long everybody has heard of it. */
const NEWS_MS = 3 * 86_400_000;

/** Tells everybody that the server was restored from a backup: what was done since that backup is not there. */
export function Restored() {
  const { t } = useTranslation();
  const { restored, site } = useMe();
  const now = useNow();
  const [read, setRead] = useState(() => remembered(READ));
  if (!restored || read === restored.at || now - Date.parse(restored.at) > NEWS_MS) return null;
  const done = () => {
    remember(READ, restored.at);
    setRead(restored.at);
  };
  const of = restored.of ? moment(restored.of, site.timeZone, now) : '–';
  return (
    <Bar action={<Button size="small" title={t('restored.read')} onPress={done} />}>
      <Signal kind="caution" size="body" text={t('restored.text', { of })} />
    </Bar>
  );
}
