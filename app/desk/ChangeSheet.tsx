import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { OrderChange, OrdersChanged } from '@hand-relay/contract';
import { addDays, localDate, weekday } from '@hand-relay/core/calendar';
import { packingChoices } from '@hand-relay/core/handling/packing';
import { stages, type Stage } from '@hand-relay/core/deciding/holds';
import { api, troubleOf, useMay, useMe, useNow, words } from '../state/index.ts';
import { dayName, headed } from '../text/index.ts';
import { Button, Choice, Column, DayField, Failed, Field, Row, Sheet, Signal, Text } from '../ui/index.ts';
import { Stops } from '../holds/index.ts';
import { partsOf, summed } from './parts.ts';
import { useChangeOrders, type ChangeSums } from './useChangeOrders.ts';

const heads = ['day', 'priority', 'lane', 'packing'] as const;
const acts = ['tag', 'hold', 'lift', 'cancel'] as const;
type Head = (typeof heads)[number];
type What = Head | (typeof acts)[number];
const isHead = (what: What): what is Head => (heads as readonly What[]).includes(what);

const LEAST_REASON = 3;
/** A choice that is not made: the order keeps what it has. */
const KEEP = '';
/** No departure, or the lane and door of the departure. */
const NONE = '-';
const valueOf = (choice: string): string | null | undefined =>
  choice === KEEP ? undefined : choice === NONE ? null : choice;

/** Changes one order or many: what it would do is said before, and a notice takes it back after. */
export function ChangeSheet({ orders, title, onClose }: { orders: string[]; title: string; onClose: () => void }) {
  const { t } = useTranslation();
  const [mayChange, mayCancel] = [useMay('orders.change'), useMay('orders.cancel')];
  const mayTag = [useMay('orders.release'), useMay('orders.choose'), mayChange].includes(true);
  const may: Record<What, boolean> = {
    day: mayChange,
    priority: mayChange,
    lane: mayChange,
    packing: mayChange,
    tag: mayTag,
    hold: mayCancel,
    lift: true,
    cancel: mayCancel,
  };
  const offered = [...heads, ...acts].filter((w) => may[w]);
  const [what, setWhat] = useState<What>(offered[0]!);
  const [set, setSet] = useState<OrderChange>({});
  const [reason, setReason] = useState('');
  const [stops, setStops] = useState<Stage[]>([...stages]);
  const [tag, setTag] = useState('');
  const [adds, setAdds] = useState<'add' | 'remove'>('add');
  const [asked, setAsked] = useState(false);
  const make = useChangeOrders();
  const look = useLook(orders, isHead(what) ? set : {});
  const noReason = reason.trim().length < LEAST_REASON;
  const noTag = !/^[^,;|]{1,24}$/.test(tag.trim());
  const ready: Record<What, boolean> = {
    day: Object.keys(set).length > 0,
    priority: Object.keys(set).length > 0,
    lane: Object.keys(set).length > 0,
    packing: Object.keys(set).length > 0,
    tag: !noTag,
    hold: !noReason && stops.length > 0,
    lift: !noReason,
    cancel: !noReason,
  };
  const go = async () => {
    setAsked(true);
    if (!ready[what]) return;
    const done = isHead(what)
      ? await make.change(orders, set)
      : what === 'tag'
        ? await make.tag(orders, tag.trim(), adds === 'add')
        : what === 'hold'
          ? await make.hold(orders, reason.trim(), stops)
          : await make[what](orders, reason.trim());
    if (done) onClose();
  };
  const count = orders.length;
  const verb = isHead(what)
    ? t('change.doChange', { count })
    : t(
        ({ tag: 'change.doTag', hold: 'change.doHold', lift: 'change.doLift', cancel: 'change.doCancel' } as const)[
          what
        ],
        { count },
      );
  return (
    <Sheet
      title={title}
      onClose={onClose}
      keys={
        <>
          <Button title={t('release.cancel')} onPress={onClose} />
          <Button
            kind={what === 'cancel' ? 'danger' : 'act'}
            title={
              make.done === null || count <= make.done ? verb : t('change.progress', { done: make.done, all: count })
            }
            disabled={make.busy || (isHead(what) && !ready[what])}
            onPress={() => void go()}
          />
        </>
      }
    >
      <Choice
        bare
        label={t('change.what')}
        value={what}
        onChange={(next) => {
          setWhat(next);
          setSet({});
          setAsked(false);
        }}
        options={offered.map((value) => ({ value, title: t(`change.${value}`) }))}
      />
      {what === 'day' && <DayPart set={set} onChange={setSet} />}
      {what === 'packing' && (
        <Column gap={6}>
          <Choice
            label={t('change.packing')}
            value={set.packing ?? ('' as never)}
            onChange={(packing) => setSet({ packing })}
            options={packingChoices.map((value) => ({ value, title: t(`packing.${value}`) }))}
          />
          <Text kind="small" colour="quiet">
            {t('change.packingHint')}
          </Text>
        </Column>
      )}
      {what === 'priority' && (
        <Column gap={6}>
          <Choice
            bare
            label={t('change.priority')}
            value={String(set.priority ?? '')}
            onChange={(p) => setSet({ priority: Number(p) })}
            options={['1', '2', '3', '4', '5', '6', '7', '8', '9'].map((value) => ({ value, title: value }))}
          />
          <Text kind="small" colour="quiet">
            {t('change.priorityHint')}
          </Text>
        </Column>
      )}
      {what === 'lane' && <LanePart set={set} onChange={setSet} />}
      {isHead(what) &&
        look.data &&
        [t('change.look.changed', { count: look.data.changed }), ...make.sentences(look.data)].map((text, i) => (
          <Signal key={text} kind={i === 0 ? 'quiet' : 'caution'} text={text} size="body" />
        ))}
      {isHead(what) && look.error !== undefined && <Failed text={words(troubleOf(look.error))} />}
      {what === 'tag' && (
        <Column gap={10}>
          <Choice
            bare
            label={t('change.tag')}
            value={adds}
            onChange={setAdds}
            options={[
              { value: 'add', title: t('change.tagAdd') },
              { value: 'remove', title: t('change.tagRemove') },
            ]}
          />
          <Field
            label={t('change.tagName')}
            value={tag}
            onChange={setTag}
            onSubmit={() => void go()}
            error={asked && noTag ? t('order.tagWrong') : undefined}
          />
        </Column>
      )}
      {(what === 'hold' || what === 'lift' || what === 'cancel') && (
        <Column gap={12}>
          <Text>{t(`change.${what}Text`)}</Text>
          <Field
            label={t('order.reason')}
            value={reason}
            onChange={setReason}
            onSubmit={() => void go()}
            error={asked && noReason ? t('order.reasonNeeded') : undefined}
          />
          {what === 'hold' && <Stops value={stops} onChange={setStops} />}
        </Column>
      )}
      {make.error !== undefined && <Failed text={words(troubleOf(make.error))} />}
    </Sheet>
  );
}

/** What a change would do, asked again whenever it is another one. */
function useLook(orders: string[], set: OrderChange): { data: ChangeSums | null; error: unknown } {
  const [look, { error }] = api.useChangeOrdersMutation();
  const [sums, setSums] = useState<{ of: string; data: ChangeSums } | null>(null);
  const key = JSON.stringify(set);
  useEffect(() => {
    if (key === '{}') return undefined;
    let over = false;
    void (async () => {
      const answers: OrdersChanged[] = [];
      for (const part of partsOf(orders)) {
        const { data } = await look({
          mode: 'preview',
          changes: [{ orders: part, set: JSON.parse(key) as OrderChange }],
        });
        if (over || !data) return;
        answers.push(data);
      }
      setSums({ of: key, data: summed(answers) });
    })();
    return () => {
      over = true;
    };
    // The orders of a sheet stay the same.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return { data: sums?.of === key ? sums.data : null, error };
}

interface Part {
  set: OrderChange;
  onChange: (set: OrderChange) => void;
}

/** A change without what is not chosen. */
const only = (set: { [K in keyof OrderChange]: OrderChange[K] | undefined }): OrderChange =>
  Object.fromEntries(Object.entries(set).filter(([, value]) => value !== undefined));

function DayPart({ set, onChange }: Part) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const { data: places } = api.useDeskPlacesQuery();
  const today = localDate(now, me.site.timeZone);
  // The next days of work: most orders move to one of these.
  const days = [0, 1, 2, 3, 4, 5, 6, 7, 8]
    .map((n) => addDays(today, n))
    .filter((d) => d === today || weekday(d) <= 5)
    .slice(0, 5);
  return (
    <Column gap={12}>
      <Choice
        label={t('change.due')}
        value={set.due ?? KEEP}
        onChange={(due) => onChange(only({ ...set, due: due === KEEP ? undefined : due }))}
        options={[
          { value: KEEP, title: t('change.keepDay') },
          ...days.map((value) => ({ value, title: headed(dayName(value, me.site.timeZone, now)) })),
        ]}
      />
      <Row>
        <DayField
          label={t('change.otherDay')}
          value={set.due ?? ''}
          onChange={(due) => onChange(only({ ...set, due: due || undefined }))}
        />
      </Row>
      <Choice
        label={t('change.departure')}
        value={set.departure === null ? NONE : (set.departure ?? KEEP)}
        onChange={(departure) => onChange(only({ ...set, departure: valueOf(departure) }))}
        options={[
          { value: KEEP, title: t('change.keep') },
          ...(places?.departures ?? []).map((value) => ({ value, title: value })),
          { value: NONE, title: t('change.none') },
        ]}
      />
    </Column>
  );
}

function LanePart({ set, onChange }: Part) {
  const { t } = useTranslation();
  const { data: places } = api.useDeskPlacesQuery();
  return (
    <Column gap={12}>
      {(['lane', 'door'] as const).map((kind) => (
        <Choice
          key={kind}
          label={kind === 'lane' ? t('order.lane') : t('change.door')}
          value={set[kind] === null ? NONE : (set[kind] ?? KEEP)}
          onChange={(code) => onChange(only({ ...set, [kind]: valueOf(code) }))}
          options={[
            { value: KEEP, title: t('change.keep') },
            ...(places?.[`${kind}s`] ?? []).map((value) => ({ value, title: value })),
            { value: NONE, title: t(`change.${kind}As`) },
          ]}
        />
      ))}
    </Column>
  );
}
