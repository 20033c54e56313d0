import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { OrderDetail } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { api, notify, troubleOf, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Column, Failed, Field, Button, Row, Sheet, Text } from '../ui/index.ts';

const DAY_MS = 86_400_000;

/** Says line by line what of an order waits, and until when; the rest can go. */
export function SplitSheet({ order, onClose }: { order: OrderDetail; onClose: () => void }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const me = useMe();
  const now = useNow();
  const { data } = api.useOrderAvailabilityQuery({ id: order.id });
  const [split, { isLoading, error }] = api.useSplitOrderMutation();
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [day, setDay] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const today = localDate(now, me.site.timeZone);
  const lines = order.lines.filter((l) => l.asked - l.cancelled > l.released);
  const promises = new Map(data?.promise?.lines.map((l) => [l.line, l]));
  const getsOf = (id: string) => promises.get(id)?.gets ?? 0;
  const openOf = (l: OrderDetail['lines'][number]) => l.asked - l.cancelled - l.released;
  const unitsOf = (id: string) => (/^\d+$/.test(typed[id]?.trim() ?? '') ? Number(typed[id]) : 0);
  const wrong = (l: OrderDetail['lines'][number]) => {
    const text = typed[l.id]?.trim() ?? '';
    return text !== '' && (!/^\d+$/.test(text) || Number(text) > openOf(l));
  };
  const waits = lines.map((l) => ({ line: l.id, units: unitsOf(l.id) })).filter((w) => w.units > 0);
  const count = waits.reduce((n, w) => n + w.units, 0);
  // Once expected supply can serve it, or a week from now.
  const usual = data?.promise?.fullBy ?? new Date(Date.parse(today) + 7 * DAY_MS).toISOString().slice(0, 10);
  const due = day ?? (usual > today ? usual : today);
  const goodDay = /^\d{4}-\d{2}-\d{2}$/.test(due) && !Number.isNaN(Date.parse(due)) && due >= today;
  const go = async () => {
    setAsked(true);
    if (count === 0 || !goodDay || lines.some(wrong)) return;
    const done = await split({ id: order.id, lines: waits, due });
    if (!done.data) return;
    onClose();
    send(
      notify({
        kind: 'done',
        text: t('order.splitDone', { units: t('unit.units', { count }), number: done.data.number }),
        link: `/desk/orders/${done.data.id}`,
        undo: { name: 'joinOrder', id: done.data.id, body: {} },
      }),
    );
  };
  return (
    <Sheet
      title={t('order.splitTitle', { number: order.number })}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button
            kind="act"
            title={t('order.splitDo', { units: t('unit.units', { count }) })}
            busy={isLoading}
            onPress={() => void go()}
          />
        </>
      }
    >
      <Text>{t('order.splitText')}</Text>
      <Row>
        <Button
          size="small"
          title={t('order.splitShort')}
          disabled={!data}
          onPress={() =>
            setTyped(Object.fromEntries(lines.map((l) => [l.id, String(Math.max(0, openOf(l) - getsOf(l.id)))])))
          }
        />
      </Row>
      {lines.map((l) => (
        <Row key={l.id} gap={12} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
          <View style={{ flex: 1, minWidth: 0 }}>
            <Text kind="strong" lines={2}>
              {l.line} · {l.name}
            </Text>
            <Text kind="small" colour="quiet">
              {t('order.splitOpen', { open: number(openOf(l)), gets: number(getsOf(l.id)) })}
            </Text>
          </View>
          <View style={{ width: 120 }}>
            <Field
              bare
              numeric
              label={t('order.splitWaits', { line: l.line })}
              placeholder="0"
              value={typed[l.id] ?? ''}
              onChange={(text) => setTyped({ ...typed, [l.id]: text })}
              error={wrong(l) ? t('refusal.split-too-much', { line: l.line, open: openOf(l) }) : undefined}
            />
          </View>
        </Row>
      ))}
      {asked && count === 0 && <Failed text={t('order.splitNone')} />}
      <Column gap={4}>
        <View style={{ width: 180 }}>
          <Field
            label={t('order.splitDue')}
            value={due}
            onChange={setDay}
            error={goodDay ? undefined : t('order.splitDate')}
          />
        </View>
      </Column>
      {error && <Failed text={words(troubleOf(error))} />}
    </Sheet>
  );
}
