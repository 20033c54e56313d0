import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, troubleOf, words } from '../state/index.ts';
import { Failed, Field, Key, Sheet, Txt } from '../ui/index.ts';

/** Asks why, and cancels the rest of an order or all of it. */
export function CancelSheet({
  order,
  what,
  units,
  onClose,
}: {
  order: string;
  what: 'rest' | 'all';
  units: number;
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const [cancelRest, rest] = api.useCancelRestMutation();
  const [cancelAll, all] = api.useCancelOrderMutation();
  const { isLoading, error } = what === 'rest' ? rest : all;
  const title = t(what === 'rest' ? 'order.cancelRest' : 'order.cancelAll');
  const go = async () => {
    setAsked(true);
    if (reason.trim().length < 3) return;
    const done = await (what === 'rest' ? cancelRest : cancelAll)({ id: order, reason: reason.trim() });
    if (done.data) onClose();
  };
  return (
    <Sheet
      title={title}
      onClose={onClose}
      keys={
        <>
          <Key title={t('release.cancel')} onPress={onClose} />
          <Key kind="danger" title={title} busy={isLoading} onPress={() => void go()} />
        </>
      }
    >
      <Txt>
        {what === 'rest'
          ? t('order.cancelText', { units: t('unit.units', { count: units }) })
          : t('order.cancelAllText')}
      </Txt>
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
