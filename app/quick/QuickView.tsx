import { useLocalSearchParams, useRouter } from 'expo-router';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import type { QuickOrder } from '@hand-relay/contract';
import { addDays, localDate } from '@hand-relay/core/calendar';
import { picksOf, placeKey, placesOf, whyNot, type Typed } from '@hand-relay/core/deciding/quick';
import {
  api,
  notify,
  placesOf as placesOfPerson,
  troubleOf,
  useMe,
  useNow,
  useAppDispatch,
  words,
} from '../state/index.ts';
import { dayName, relative, timeOf } from '../text/index.ts';
import {
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  Signal,
  Checkbox,
  Choice,
  Text,
  useSettled,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { DeskTabs } from '../desk/index.ts';
import { Page } from '../shell/index.ts';
import { QuickLineRow } from './QuickLineRow.tsx';
import { saidOf } from './saidOf.ts';

/** Everything due on one screen: as asked, or exact by line, confirmed and shipped once. */
export function QuickView() {
  const { t } = useTranslation();
  const router = useRouter();
  const wide = useWindowDimensions().width >= WIDE;
  const send = useAppDispatch();
  const me = useMe();
  const now = useNow();
  const packs = me.settings.stages === 'pick-pack-ship';
  const {
    order: only,
    find = '',
    until = 'today',
  } = useLocalSearchParams<{
    order?: string;
    find?: string;
    until?: string;
  }>();
  const days = dayChoices(me.site.timeZone, now);
  const day = days.find((d) => d.value === until)?.day;
  const asked = useSettled(find);
  const { data, error, refetch } = api.useQuickListQuery(
    only ? { order: only } : { ...(day ? { until: day } : {}), ...(asked ? { find: asked } : {}) },
  );
  const [confirm, { isLoading, error: refused }] = api.useQuickConfirmMutation();
  const [typed, setTyped] = useState<Typed>({});
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const fields = useRef(new Map<string, TextInput>());
  const finder = useRef<TextInput>(null);
  const orders = data?.orders ?? [];
  // Where this is how the site works all go unless one is taken out; where goods are packed only those that are marked.
  const goes = (id: string) => turned.has(id) === (packs && !only);
  const going = orders.filter((o) => goes(o.id) && whyNot(o, typed) === null);
  const stopped = orders.filter((o) => goes(o.id) && whyNot(o, typed) === 'wrong');
  const units = going.reduce((n, o) => n + picksOf(o, typed).reduce((m, p) => m + p.units, 0), 0);
  const lines = useRef<string[]>([]);
  useEffect(() => {
    lines.current = (data?.orders ?? []).flatMap((o) => o.lines.map((l) => l.line));
  }, [data]);
  const focus = useCallback((line: string | undefined) => {
    if (line) fields.current.get(line)?.focus();
  }, []);
  const next = useCallback((line: string) => focus(lines.current[lines.current.indexOf(line) + 1]), [focus]);
  const field = useCallback((line: string, input: TextInput | null) => {
    if (input) fields.current.set(line, input);
    else fields.current.delete(line);
  }, []);
  const type = useCallback((line: string, text: string) => setTyped((before) => ({ ...before, [line]: text })), []);
  const toggle = useCallback(
    (id: string) =>
      setTurned((before) => new Set(before.has(id) ? [...before].filter((o) => o !== id) : [...before, id])),
    [],
  );
  const placesToGo = placesOfPerson(me);
  const go = async () => {
    if (going.length === 0 || stopped.length > 0) return;
    const done = await confirm({ orders: going.map((o) => ({ order: o.id, picks: picksOf(o, typed) })) });
    if (!done.data) return;
    setTyped({});
    send(
      notify({
        kind: 'done',
        text: saidOf(done.data, { orders: going.length, units }),
        ...(done.data.toPack.length > 0 && placesToGo.includes('bench') ? { link: '/bench' } : {}),
      }),
    );
    if (only) router.navigate(`/desk/orders/${only}`);
  };
  useShortcuts({
    Escape: () => router.navigate(only ? `/desk/orders/${only}` : '/desk'),
    f: () => finder.current?.focus(),
    j: () => focus(lines.current[0]),
    c: () => void go(),
    a: () => setTyped({}),
  });
  // Works from within a field too, where letters are what is typed.
  useControlEnter(() => void go());
  return (
    <Page
      title={t(only ? 'quick.one' : 'quick.title')}
      {...(only ? { onBack: () => router.navigate(`/desk/orders/${only}`) } : {})}
      aside={only ? undefined : <DeskTabs at="quick" />}
      foot={
        orders.length > 0 ? (
          <Row gap={12} style={{ justifyContent: 'space-between' }}>
            {wide && <Text colour="quiet">{t('quick.keys')}</Text>}
            <Row gap={8} style={{ flexShrink: 1 }}>
              <Button title={t('quick.asAsked')} onPress={() => setTyped({})} />
              <Button
                kind="act"
                title={t(packs ? 'quick.confirmPicked' : 'quick.confirm', {
                  orders: t('unit.orders', { count: going.length }),
                  units: t('unit.units', { count: units }),
                })}
                disabled={going.length === 0 || stopped.length > 0}
                busy={isLoading}
                onPress={() => void go()}
              />
            </Row>
          </Row>
        ) : undefined
      }
    >
      {!only && (
        <Row gap={8}>
          <View style={{ flexGrow: 1, flexBasis: 200, maxWidth: 340 }}>
            <Field
              bare
              label={t('quick.find')}
              placeholder={t('quick.find')}
              value={find}
              onChange={(text) => router.setParams({ find: text || undefined })}
              inputRef={finder}
            />
          </View>
          <Choice
            bare
            label={t('quick.due')}
            value={until}
            onChange={(value) => router.setParams({ until: value })}
            options={days.map(({ value }) => ({ value, title: t(`quick.until.${value}`) }))}
          />
        </Row>
      )}
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {refused && <Failed text={words(troubleOf(refused))} />}
      {!data && !error && <Loading rows={6} />}
      {data && orders.length === 0 && (
        <Empty
          title={t(find || only ? 'quick.noneTitle' : 'quick.emptyTitle')}
          text={t(only ? 'quick.noneOnly' : find ? 'quick.noneText' : 'quick.emptyText')}
        />
      )}
      {orders.map((order) => (
        <OrderBlock
          key={order.id}
          order={order}
          typed={typed}
          goes={goes(order.id)}
          onGoes={toggle}
          onTyped={type}
          onNext={next}
          field={field}
        />
      ))}
      {data && data.more > 0 && <Text colour="quiet">{t('quick.more', { count: data.more })}</Text>}
    </Page>
  );
}

/** By which day what is listed is due: none is today, as the server has it. */
function dayChoices(timeZone: string, now: number) {
  const today = localDate(now, timeZone);
  return [
    { value: 'today', day: undefined },
    { value: 'tomorrow', day: addDays(today, 1) },
    { value: 'week', day: addDays(today, 7) },
    { value: 'any', day: 'any' },
  ] as const;
}

function useControlEnter(go: () => void) {
  const latest = useRef(go);
  useEffect(() => {
    latest.current = go;
  });
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      event.stopPropagation();
      latest.current();
    };
    // Before the field, which keeps its keys to itself.
    document.addEventListener('keydown', hear, true);
    return () => document.removeEventListener('keydown', hear, true);
  }, []);
}

interface BlockProps {
  order: QuickOrder;
  typed: Typed;
  goes: boolean;
  onGoes: (order: string) => void;
  onTyped: (key: string, text: string) => void;
  onNext: (line: string) => void;
  field: (line: string, input: TextInput | null) => void;
}

/** Two hundred orders are on the screen: a keystroke draws the one again that it is about. */
const OrderBlock = memo(
  Block,
  (a, b) =>
    a.order === b.order &&
    a.goes === b.goes &&
    a.order.lines.every((l) =>
      [l.line, ...placesOf(l).map((p) => placeKey(l.line, p))].every((key) => a.typed[key] === b.typed[key]),
    ),
);

function Block({ order, typed, goes, onGoes, onTyped, onNext, field }: BlockProps) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const why = whyNot(order, typed);
  const leaves = order.leavesAt
    ? `${timeOf(order.leavesAt, me.site.timeZone, now)}, ${relative(order.leavesAt, now)}`
    : dayName(order.due, me.site.timeZone, now);
  return (
    <View
      role="group"
      aria-label={order.number}
      style={{
        borderTopWidth: 1,
        borderColor: surface.line,
        paddingTop: 10,
        gap: 6,
        opacity: goes ? 1 : 0.55,
        // Wider, and the eye would lose the line on its way to the field.
        maxWidth: 820,
      }}
    >
      <Row gap={8}>
        <Checkbox
          checked={goes && why !== 'held'}
          onPress={() => onGoes(order.id)}
          label={t('quick.goes', { number: order.number })}
        />
        <Text kind="strong">{order.number}</Text>
        <Text>{order.customer}</Text>
        <Text colour="quiet">{[leaves, order.departure].filter(Boolean).join(' · ')}</Text>
      </Row>
      {[order.note, order.wishes].filter(Boolean).map((text) => (
        <Signal key={text} kind="caution" text={text} />
      ))}
      {order.held !== null && <Signal kind="refused" text={t('hold.onHold', { text: order.held })} />}
      {goes && why === 'ships-complete' && <Signal kind="caution" text={t('quick.shipsComplete')} />}
      {goes && why === 'nothing' && <Signal kind="quiet" text={t('quick.nothing')} />}
      {order.lines.map((line) => (
        <QuickLineRow
          key={line.line}
          line={line}
          typed={typed}
          disabled={!goes || order.held !== null}
          onTyped={onTyped}
          onNext={() => onNext(line.line)}
          field={(input) => field(line.line, input)}
        />
      ))}
    </View>
  );
}
