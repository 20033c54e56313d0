import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { stages, type Stage } from '@hand-relay/core/holds';
import { api, troubleOf, words } from '../state/index.ts';
import { Column, Failed, Field, Key, Sheet, Txt } from '../ui/index.ts';
import { Stops } from './Stops.tsx';

/** Holds an order by hand: why, and what is stopped. */
export function HoldSheet({ order, onClose }: { order: string; onClose: () => void }) {
  const { t } = useTranslation();
  const [hold, { isLoading, error }] = api.useHoldOrderMutation();
  const [reason, setReason] = useState('');
  const [stops, setStops] = useState<Stage[]>([...stages]);
  const [asked, setAsked] = useState(false);
  const short = reason.trim().length < 3;
  const go = async () => {
    setAsked(true);
    if (short || stops.length === 0) return;
    const done = await hold({ id: order, reason: reason.trim(), stops });
    if (done.data) onClose();
  };
  return (
    <Sheet
      title={t('hold.put')}
      onClose={onClose}
      keys={
        <>
          <Key title={t('release.cancel')} onPress={onClose} />
          <Key kind="danger" title={t('hold.put')} busy={isLoading} onPress={() => void go()} />
        </>
      }
    >
      <Column gap={12}>
        <Txt>{t('hold.putText')}</Txt>
        <Field
          focus
          label={t('order.reason')}
          value={reason}
          onChange={setReason}
          onSubmit={() => void go()}
          error={asked && short ? t('order.reasonNeeded') : undefined}
        />
        <Stops value={stops} onChange={setStops} />
        {error && <Failed text={words(troubleOf(error))} />}
      </Column>
    </Sheet>
  );
}
