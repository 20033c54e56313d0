import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useClockError } from '../state/index.ts';
import { Button, Signal } from '../ui/index.ts';
import { Bar } from './Bar.tsx';

/** Says that the device's own clock is wrong: people read it beside the times that we show. */
export function WrongClock() {
  const { t } = useTranslation();
  const minutes = useClockError();
  const [dismissed, dismiss] = useState<number | null>(null);
  if (minutes === 0 || minutes === dismissed) return null;
  return (
    <Bar action={<Button size="small" title={t('clock.dismiss')} onPress={() => dismiss(minutes)} />}>
      <Signal
        kind="caution"
        size="body"
        text={t(minutes > 0 ? 'clock.slow' : 'clock.fast', { minutes: Math.abs(minutes) })}
      />
    </Bar>
  );
}
