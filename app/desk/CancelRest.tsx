import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, troubleOf, words } from '../state/index.ts';
import { Failed, Field, Key, Sheet, Txt } from '../ui/index.ts';

/** Asks why the rest is cancelled, and cancels it. */
export function CancelRest({ order, units, onClose }: { order: string; units: number; onClose: () => void }) {
  const { t } = useTranslation();
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const [cancel, { isLoading, error }] = api.useCancelRestMutation();
  const go = async () => {
    setAsked(true);
    if (reason.trim().length < 3) return;
    const done = await cancel({ id: order, reason: reason.trim() });
    if (done.data) onClose();
  };
  return (
    <Sheet
      title={t('order.cancelRest')}
      onClose={onClose}
      keys={
        <>
          <Key title={t('release.cancel')} onPress={onClose} />
          <Key kind="danger" title={t('order.cancelRest')} busy={isLoading} onPress={() => void go()} />
        </>
      }
    >
      <Txt>{t('order.cancelText', { units: t('unit.units', { count: units }) })}</Txt>
      <Field
        label={t('order.reason')}
        value={reason}
        onChange={setReason}
        onSubmit={() => void go()}
        focus
        error={asked && reason.trim().length < 3 ? t('order.reasonNeeded') : undefined}
      />
      {error && <Failed text={words(troubleOf(error))} />}
    </Sheet>
  );
}
