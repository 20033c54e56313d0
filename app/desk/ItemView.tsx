import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, useWindowDimensions, View } from 'react-native';
import type { Asker, ItemAvailability } from '@hand-relay/contract';
import { deskPolicies, type DeskPolicy } from '@hand-relay/core/deciding/allocation/policies';
import { overdrawn, shift, type Portion } from '@hand-relay/core/deciding/availability';
import { api, notify, troubleOf, useMay, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { dayName, number } from '../text/index.ts';
import {
  Choice,
  Column,
  Facts,
  Failed,
  Button,
  Loading,
  Picture,
  Row,
  Signal,
  Text,
  useShortcuts,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { ItemStock } from './ItemStock.tsx';
import { listingOf, paramsOf, viewOf } from './listing.ts';
import { ShareBar } from './ShareBar.tsx';

/** An item: what there is and what comes, who asks and what each gets, moved by hand; where it lies and for whom. */
export function ItemView({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const listing = listingOf(useGlobalSearchParams());
  const [policy, setPolicy] = useState<DeskPolicy>('priority');
  const { currentData: item, error, refetch } = api.useItemAvailabilityQuery({ id, ...viewOf(listing), policy });
  const back = () => router.navigate({ pathname: '/desk/items', params: paramsOf(listing) });
  return (
    <Page
      title={item?.name ?? ''}
      onBack={back}
      aside={<Button title={t('trace.open')} onPress={() => router.navigate(`/desk/trace?item=${id}`)} />}
    >
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {item && <There item={item} />}
      {item && item.askers.length === 0 && <Text colour="quiet">{t('itemStock.nobodyAsks')}</Text>}
      {item && item.askers.length > 0 && (
        <Choice
          label={t('policy.title')}
          value={policy}
          onChange={setPolicy}
          options={deskPolicies.map((value) => ({ value, title: t(`policy.${value}.name`) }))}
        />
      )}
      {!item && !error && <Loading rows={5} />}
      {item && item.askers.length > 0 && <Sharing key={JSON.stringify(item)} item={item} onBack={back} />}
      {item && <ItemStock id={id} />}
    </Page>
  );
}

function There({ item }: { item: ItemAvailability }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const day = (date: string) => dayName(date, me.site.timeZone, now);
  const free = item.lots.reduce((n, l) => n + Math.max(0, l.free), 0);
  return (
    <Row gap={20} style={{ alignItems: 'flex-start' }}>
      <Picture name={item.picture} size={72} />
      <Column gap={10} style={{ flex: 1, minWidth: 240 }}>
        <Facts
          figures
          min={84}
          facts={[
            { name: t('items.onHand'), value: number(item.onHand) },
            { name: t('items.reserved'), value: number(item.reserved) },
            ...(item.blocked > 0 ? [{ name: t('items.blocked'), value: number(item.blocked) }] : []),
            { name: t('items.free'), value: number(free) },
            { name: t('items.asked'), value: number(item.askers.reduce((n, a) => n + a.asked - a.reserved, 0)) },
          ]}
        />
        <Text kind="small" colour="quiet">
          {[
            item.sku,
            ...item.lots
              .filter((l) => l.lot !== '')
              .map((l) =>
                t('items.lot', {
                  lot: l.lot,
                  units: number(l.free),
                  day: l.bestBefore ? day(l.bestBefore) : t('items.noDate'),
                }),
              ),
          ].join(' · ')}
        </Text>
        {item.expected.length === 0 ? (
          <Text kind="small" colour="quiet">
            {t('items.nothingComes')}
          </Text>
        ) : (
          item.expected.map((e) => (
            <Text key={`${e.reference} ${e.date}`} kind="small">
              {t('items.comes', {
                units: number(e.units),
                day: day(e.date),
                source: t(`items.source.${e.source}`),
                reference: e.reference,
              })}
            </Text>
          ))
        )}
      </Column>
    </Row>
  );
}

/** What an amount would mean for the whole order. */
function Effect({ asker, units }: { asker: Asker; units: number }) {
  const { t } = useTranslation();
  if (units >= asker.asked)
    return asker.othersFull ? (
      <Signal kind="done" text={t('items.goes')} />
    ) : (
      <Signal kind="quiet" text={t('items.otherLine')} />
    );
  if (asker.shipComplete) return <Signal kind="refused" text={t('items.stays')} />;
  return <Signal kind="caution" text={t(units === 0 ? 'items.nothing' : 'items.part')} />;
}

const portionsOf = (askers: Asker[]): Portion[] =>
  askers.map(({ line, until, asked, reserved: reserved, gets }) => ({
    line,
    until,
    asked,
    reserved,
    units: Math.max(gets, reserved),
  }));

function Sharing({ item, onBack }: { item: ItemAvailability; onBack: () => void }) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const wide = useWindowDimensions().width >= WIDE;
  const mayChoose = useMay('orders.choose');
  const [fix, { isLoading, error }] = api.useAllocateManuallyMutation();
  const first = portionsOf(item.askers);
  const [portions, setPortions] = useState(first);
  const [at, setAt] = useState(0);
  const free = item.lots.reduce((n, l) => n + Math.max(0, l.free), 0);
  const taken = portions.reduce((n, p) => n + p.units - p.reserved, 0);
  const over = overdrawn(item.lots, portions);
  const changed = portions.filter((p, i) => p.units !== first[i]!.units);
  const change = (from: number | null, to: number | null, units = 1) =>
    mayChoose && setPortions((now) => shift(now, from, to, units));
  const settle = async (lines: { line: string; units: number | null }[]) => {
    const done = await fix({ lines });
    if (!done.data) return;
    const before = done.data.lines;
    send(
      notify({
        kind: 'done',
        text: t('items.manual', { count: lines.length }),
        undo: { name: 'allocateManually', body: { lines: before } },
      }),
    );
  };
  const loose = item.askers.filter((a) => a.manual !== null);
  useShortcuts({
    j: () => setAt(Math.min(portions.length - 1, at + 1)),
    k: () => setAt(Math.max(0, at - 1)),
    ArrowDown: () => setAt(Math.min(portions.length - 1, at + 1)),
    ArrowUp: () => setAt(Math.max(0, at - 1)),
    '+': () => change(null, at),
    '=': () => change(null, at),
    '-': () => change(at, null),
    Enter: () => item.askers[at] && router.navigate(`/desk/orders/${item.askers[at].order}`),
    Escape: onBack,
  });
  const shown = portions.map((p, i) => ({ p, i })).filter(({ p, i }) => p.units > p.reserved || i === at);
  return (
    <Column gap={14}>
      <ShareBar
        label={t('items.bar', { free: number(free), taken: number(taken) })}
        parts={shown.map(({ p, i }) => ({
          key: p.line,
          title: item.askers[i]!.number,
          units: p.units - p.reserved,
          current: i === at,
        }))}
        left={free - taken}
        onMove={(edge, units) => {
          const [one, two] = [shown[edge]!.i, shown[edge + 1]?.i ?? null];
          if (units > 0) change(one, two, units);
          else change(two, one, -units);
        }}
        onChoose={(key) => setAt(portions.findIndex((p) => p.line === key))}
      />
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        {over > 0 ? (
          <Signal kind="refused" size="body" text={t('items.over', { units: number(over) })} />
        ) : (
          <Text colour="quiet">{t('items.left', { units: number(free - taken) })}</Text>
        )}
        {mayChoose && (
          <Row gap={8}>
            {loose.length > 0 && (
              <Button
                title={t('items.loosen', { count: loose.length })}
                onPress={() => void settle(loose.map((a) => ({ line: a.line, units: null })))}
              />
            )}
            {changed.length > 0 && <Button title={t('items.reset')} onPress={() => setPortions(first)} />}
            <Button
              kind="act"
              title={t('items.fix')}
              disabled={changed.length === 0 || over > 0}
              busy={isLoading}
              onPress={() => void settle(changed.map((p) => ({ line: p.line, units: p.units })))}
            />
          </Row>
        )}
      </Row>
      {error && <Failed text={words(troubleOf(error))} />}
      <View role="list" aria-label={t('items.askers')} style={{ borderTopWidth: 1, borderColor: surface.line }}>
        {item.askers.map((asker, i) => {
          const p = portions[i]!;
          return (
            <Pressable
              key={asker.line}
              role="listitem"
              aria-current={i === at}
              onPress={() => setAt(i)}
              style={{
                borderBottomWidth: 1,
                borderColor: surface.line,
                borderLeftWidth: 3,
                borderLeftColor: i === at ? surface.ink : 'transparent',
                backgroundColor: i === at ? surface.chosen : 'transparent',
                padding: 8,
              }}
            >
              <Row gap={12} style={{ justifyContent: 'space-between' }}>
                <View style={{ flexGrow: 1, flexBasis: 180, minWidth: 0 }}>
                  <Text lines={1}>
                    <Text kind="strong">{asker.number}</Text> {asker.customer}
                  </Text>
                  <Text kind="small" colour="quiet" lines={wide ? 1 : 2}>
                    {[
                      t('order.class', { class: asker.class }),
                      dayName(asker.due, me.site.timeZone, now),
                      t('items.priority', { priority: asker.priority }),
                      ...(asker.shipComplete ? [t('items.whole')] : []),
                      ...(asker.reserved > 0 ? [t('items.kept', { units: number(asker.reserved) })] : []),
                    ].join(' · ')}
                  </Text>
                </View>
                <Row gap={6} style={{ flexWrap: 'nowrap' }}>
                  {mayChoose && (
                    <Button
                      title={t('items.take', { number: asker.number })}
                      icon="minus"
                      iconOnly
                      disabled={p.units <= p.reserved}
                      onPress={() => change(i, null)}
                    />
                  )}
                  <Text kind="number" style={{ minWidth: 92, textAlign: 'center' }}>
                    {t('items.gets', { units: number(p.units), asked: number(p.asked) })}
                  </Text>
                  {mayChoose && (
                    <Button
                      title={t('items.give', { number: asker.number })}
                      icon="plus"
                      iconOnly
                      disabled={p.units >= p.asked}
                      onPress={() => change(null, i)}
                    />
                  )}
                </Row>
                <View style={{ width: wide ? 210 : '100%' }}>
                  <Effect asker={asker} units={p.units} />
                  {(asker.manual !== null || p.units !== first[i]!.units) && (
                    <Text kind="small" colour="quiet">
                      {p.units !== first[i]!.units
                        ? t('items.was', { units: number(first[i]!.units) })
                        : t('items.byHand')}
                    </Text>
                  )}
                </View>
              </Row>
            </Pressable>
          );
        })}
      </View>
    </Column>
  );
}
