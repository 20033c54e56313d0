import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, notify, useAppDispatch } from '../state/index.ts';
import { ReasonSheet } from '../shell/index.ts';
import { Field } from '../ui/index.ts';

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
  const send = useAppDispatch();
  const { data: was } = api.useOrderQuery(order);
  const [cancelRest, rest] = api.useCancelRestMutation();
  const [cancelAll, all] = api.useCancelOrderMutation();
  const { isLoading, error } = what === 'rest' ? rest : all;
  const title = t(what === 'all' ? 'order.cancelAll' : lines.length > 0 ? 'order.cancelLine' : 'order.cancelRest');
  // Of one line a part may go.
  const one = what === 'rest' && lines.length === 1;
  const [typed, setTyped] = useState(String(units));
  const [asked, setAsked] = useState(false);
  const part = /^\d+$/.test(typed.trim()) ? Number(typed) : 0;
  const wrong = one && (part < 1 || part > units);
  const go = async (reason: string) => {
    setAsked(true);
    if (wrong) return;
    const why = { id: order, reason };
    const before = new Map(was?.lines.map((l) => [l.id, l.cancelled]));
    const done = await (what === 'rest'
      ? cancelRest({ ...why, lines, units: one && part < units ? part : null })
      : cancelAll(why));
    if (!done.data) return;
    onClose();
    if (what === 'all') return;
    const gone = done.data.lines.map((l) => ({ line: l.id, units: l.cancelled - (before.get(l.id) ?? 0) }));
    const undone = gone.filter((l) => l.units > 0);
    const count = undone.reduce((n, l) => n + l.units, 0);
    send(
      notify({
        kind: 'done',
        text: t('order.cancelDone', { units: t('unit.units', { count }) }),
        undo: { name: 'restoreRest', id: order, body: { lines: undone } },
      }),
    );
  };
  return (
    <ReasonSheet
      title={title}
      text={
        what === 'rest'
          ? t('order.cancelText', { units: t('unit.units', { count: one && !wrong ? part : units }) })
          : t('order.cancelAllText')
      }
      busy={isLoading}
      error={error}
      onClose={onClose}
      onDo={(reason) => void go(reason)}
    >
      {one && units > 1 && (
        <Field
          numeric
          label={t('order.cancelUnits')}
          value={typed}
          onChange={setTyped}
          error={asked && wrong ? t('order.cancelAtMost', { units }) : undefined}
        />
      )}
    </ReasonSheet>
  );
}
