import { useRouter } from 'expo-router';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import type { QuickLine, QuickOrder } from '@hand-relay/contract';
import { countOf, picksOf, whyNot, type Typed } from '@hand-relay/core/deciding/quick';
import { api, notify, troubleOf, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { dayName, number, relative, timeOf } from '../text/index.ts';
import {
  Column,
  Empty,
  Failed,
  Field,
  Button,
  Loading,
  Row,
  Signal,
  Checkbox,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { DeskTabs } from '../desk/index.ts';
import { Page } from '../shell/index.ts';

/** Everything due on one screen: as asked, or exact by line, confirmed and shipped once. */
export function QuickView() {
  const { t } = useTranslation();
  const router = useRouter();
  const wide = useWindowDimensions().width >= WIDE;
  const send = useAppDispatch();
  const { data, error, refetch } = api.useQuickListQuery();
  const [confirm, { isLoading, error: refused }] = api.useQuickConfirmMutation();
  const [typed, setTyped] = useState<Typed>({});
  const [out, setOut] = useState<ReadonlySet<string>>(new Set());
  const fields = useRef(new Map<string, TextInput>());
  const orders = data?.orders ?? [];
  const going = orders.filter((o) => !out.has(o.id) && whyNot(o, typed) === null);
  const stopped = orders.filter((o) => !out.has(o.id) && whyNot(o, typed) === 'wrong');
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
    (id: string) => setOut((before) => new Set(before.has(id) ? [...before].filter((o) => o !== id) : [...before, id])),
    [],
  );
  const go = async () => {
    if (going.length === 0 || stopped.length > 0) return;
    const done = await confirm({ orders: going.map((o) => ({ order: o.id, picks: picksOf(o, typed) })) });
    if (!done.data) return;
    setTyped({});
    send(
      notify({
        kind: 'done',
        text: t('quick.done', {
          orders: t('unit.orders', { count: done.data.shipments.length }),
          units: t('unit.units', { count: units }),
        }),
      }),
    );
  };
  useShortcuts({
    Escape: () => router.navigate('/desk'),
    j: () => focus(lines.current[0]),
    c: () => void go(),
    a: () => setTyped({}),
  });
  // Works from within a field too, where letters are what is typed.
  useControlEnter(() => void go());
  return (
    <Page
      title={t('quick.title')}
      aside={<DeskTabs at="quick" />}
      foot={
        orders.length > 0 ? (
          <Row gap={12} style={{ justifyContent: 'space-between' }}>
            {wide && <Text colour="quiet">{t('quick.keys')}</Text>}
            <Row gap={8} style={{ flexShrink: 1 }}>
              <Button title={t('quick.asAsked')} onPress={() => setTyped({})} />
              <Button
                kind="act"
                title={t('quick.confirm', {
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
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {refused && <Failed text={words(troubleOf(refused))} />}
      {!data && !error && <Loading rows={6} />}
      {data && orders.length === 0 && <Empty title={t('quick.emptyTitle')} text={t('quick.emptyText')} />}
      {orders.map((order) => (
        <OrderBlock
          key={order.id}
          order={order}
          typed={typed}
          goes={!out.has(order.id)}
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
  onTyped: (line: string, text: string) => void;
  onNext: (line: string) => void;
  field: (line: string, input: TextInput | null) => void;
}

/** Two hundred orders are on the screen: a keystroke draws the one again that it is about. */
const OrderBlock = memo(
  Block,
  (a, b) => a.order === b.order && a.goes === b.goes && a.order.lines.every((l) => a.typed[l.line] === b.typed[l.line]),
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
        <LineRow
          key={line.line}
          line={line}
          typed={typed[line.line]}
          disabled={!goes || order.held !== null}
          onTyped={(text) => onTyped(line.line, text)}
          onNext={() => onNext(line.line)}
          field={(input) => field(line.line, input)}
        />
      ))}
    </View>
  );
}

interface LineProps {
  line: QuickLine;
  typed: string | undefined;
  disabled: boolean;
  onTyped: (text: string) => void;
  onNext: () => void;
  field: (input: TextInput | null) => void;
}

function LineRow({ line, typed, disabled, onTyped, onNext, field }: LineProps) {
  const { t } = useTranslation();
  const wide = useWindowDimensions().width >= WIDE;
  const counted = countOf(line, typed);
  const bins = line.from.map((f) => `${f.bin}${f.lot ? ` (${f.lot})` : ''}: ${number(f.units)}`).join(', ');
  return (
    <Row gap={12} style={{ flexWrap: 'nowrap', alignItems: 'flex-start', paddingLeft: wide ? 44 : 0 }}>
      <Column gap={0} style={{ flex: 1, minWidth: 0 }}>
        <Text lines={1}>
          {line.name} <Text colour="quiet">{line.sku}</Text>
        </Text>
        <Text kind="strong">{bins || t('quick.noBin')}</Text>
        {line.note !== '' && <Signal kind="caution" text={line.note} />}
        {line.gets < line.asked && (
          <Signal kind="caution" text={t('quick.short', { gets: number(line.gets), asked: number(line.asked) })} />
        )}
      </Column>
      <View style={{ paddingTop: 10 }}>
        <Text kind="number" colour="quiet">
          {t('quick.ofAsked', { asked: number(line.asked), unit: line.unit })}
        </Text>
      </View>
      <View style={{ width: line.tracksSerial ? 180 : 84 }}>
        {!disabled && (
          <Field
            bare
            numeric={!line.tracksSerial}
            label={t(line.tracksSerial ? 'quick.serials' : 'quick.units', { line: line.number, name: line.name })}
            placeholder={line.tracksSerial ? t('quick.serialHint') : String(line.gets)}
            value={typed ?? (line.tracksSerial ? '' : String(line.gets))}
            onChange={onTyped}
            onSubmit={onNext}
            inputRef={field}
            error={
              counted.wrong ? t(`quick.wrong.${counted.wrong}`, { asked: line.asked, gets: line.gets }) : undefined
            }
          />
        )}
      </View>
    </Row>
  );
}
