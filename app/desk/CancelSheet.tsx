import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, tell, troubleOf, useSend, words } from '../state/index.ts';
import { Failed, Field, Key, Sheet, Txt } from '../ui/index.ts';

/** Asks why, and cancels the rest of an order or all of it. */
export function CancelSheet({
  order,
  what,
  units,
  lines,
  onClose,
}: {
  order: string;
  what: 'rest' | 'all';
  units: number;
  /** Only these lines; all without any. */
  lines: string[];
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const send = useSend();
  const { data: was } = api.useOrderQuery(order);
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const [cancelRest, rest] = api.useCancelRestMutation();
  const [cancelAll, all] = api.useCancelOrderMutation();
  const { isLoading, error } = what === 'rest' ? rest : all;
  const title = t(what === 'all' ? 'order.cancelAll' : lines.length > 0 ? 'order.cancelLine' : 'order.cancelRest');
  const go = async () => {
    setAsked(true);
    if (reason.trim().length < 3) return;
    const why = { id: order, reason: reason.trim() };
    const before = new Map(was?.lines.map((l) => [l.id, l.cancelled]));
    const done = await (what === 'rest' ? cancelRest({ ...why, lines }) : cancelAll(why));
    if (!done.data) return;
    onClose();
    if (what === 'all') return;
    const gone = done.data.lines.map((l) => ({ line: l.id, units: l.cancelled - (before.get(l.id) ?? 0) }));
    const undone = gone.filter((l) => l.units > 0);
    const count = undone.reduce((n, l) => n + l.units, 0);
    send(
      tell({
        kind: 'done',
        text: t('order.cancelDone', { units: t('unit.units', { count }) }),
        undo: { name: 'restoreRest', id: order, body: { lines: undone } },
      }),
    );
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
