import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, ScrollView, View } from 'react-native';
import type { PolicyComparison } from '@hand-relay/contract';
import { deskPolicies, type DeskPolicy } from '@hand-relay/core/deciding/allocation/policies';
import { api, fill, troubleOf, useMay, useMe, useNow, useAppDispatch, words, useHouse } from '../state/index.ts';
import { clock, dayName, money, number } from '../text/index.ts';
import { Choice, Column, Failed, Button, Loading, Row, Signal, Text, useShortcuts, useSurface } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs } from './DeskTabs.tsx';
import { ListExport } from './ListExport.tsx';
import { listingOf, paramsOf, viewOf } from './listing.ts';

/** Pixels of a policy's column, and of the bar behind its largest figure. */
const CELL = 160;
const BAR = 150;

/** The policies side by side before one is taken: what each brings, and which orders change sides. */
export function ChooseView() {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const me = useMe();
  const listing = listingOf(useGlobalSearchParams());
  const view = JSON.stringify(viewOf(listing));
  const [compare, { data, error, isLoading }] = api.useComparePoliciesMutation();
  const mayRelease = useMay('orders.release');
  const again = () => void compare(viewOf(listing));
  useEffect(() => {
    again();
    // Compared once for each view; after that when a person asks for it.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [view]);
  useShortcuts({ Escape: () => router.navigate({ pathname: '/desk', params: paramsOf(listing) }), u: again });
  const put = (found: PolicyComparison, policy: DeskPolicy) => {
    const n = deskPolicies.indexOf(policy);
    const going = new Set(found.going[n]);
    send(
      fill({
        orders: found.going[n]!,
        lines: Object.fromEntries(found.lines.filter((l) => going.has(l.order)).map((l) => [l.line, l.units[n]!])),
      }),
    );
    router.navigate('/desk/tray');
  };
  return (
    <Page title={t('policy.compare')} aside={<DeskTabs at="items" />}>
      <Row gap={12}>
        {data && (
          <Text colour="quiet">
            {t('policy.at', {
              time: clock(data.at, me.site.timeZone),
              orders: t('unit.orders', { count: data.orders }),
            })}
          </Text>
        )}
        <Button title={t('fresh.again')} icon="refresh" size="small" busy={isLoading} onPress={again} />
      </Row>
      {error && <Failed text={words(troubleOf(error))} onRetry={again} />}
      {!data && !error && (
        <>
          <Text colour="quiet">{t('policy.searching')}</Text>
          <Loading rows={6} />
        </>
      )}
      {data && (
        <>
          <Tallies found={data} onPut={mayRelease ? (policy) => put(data, policy) : undefined} />
          <Sides found={data} />
        </>
      )}
    </Page>
  );
}

function Tallies({ found, onPut }: { found: PolicyComparison; onPut: ((policy: DeskPolicy) => void) | undefined }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  const { classes: known, className } = useHouse();
  const rankOf = (code: string) => known.findIndex((one) => one.code === code) + 1 || known.length + 1;
  const classes = [...new Set(found.tallies.flatMap((tally) => Object.keys(tally.byClass)))].sort(
    (a, b) => rankOf(a) - rankOf(b) || (a < b ? -1 : 1),
  );
  const rows: {
    name: string;
    of: (tally: PolicyComparison['tallies'][number]) => number;
    show?: (n: number) => string;
    less?: boolean;
  }[] = [
    { name: t('policy.orders'), of: (x) => x.orders },
    { name: t('policy.lines'), of: (x) => x.lines },
    { name: t('policy.units'), of: (x) => x.units },
    { name: t('policy.value'), of: (x) => x.value, show: (n) => money(n, me.site.currency) },
    { name: t('policy.late'), of: (x) => x.late, less: true },
    ...classes.map((c) => ({
      name: t('policy.class', {
        class: className(c) || t('policy.noClass'),
        orders: t('unit.orders', { count: found.tallies[0]?.byClass[c]?.orders ?? 0 }),
      }),
      of: (x: PolicyComparison['tallies'][number]) => x.byClass[c]?.complete ?? 0,
    })),
  ];
  const cell = { width: CELL, padding: 8, alignItems: 'flex-end' as const };
  return (
    <ScrollView horizontal>
      <View role="table" aria-label={t('policy.compare')}>
        <View role="row" style={{ flexDirection: 'row', borderBottomWidth: 1, borderColor: surface.quiet }}>
          <View role="columnheader" style={{ width: 176, padding: 8 }} />
          {found.tallies.map(({ policy, bound, orders }) => (
            <View key={policy} role="columnheader" style={cell}>
              <Text kind="strong">{t(`policy.${policy}.name`)}</Text>
              <Text kind="small" colour="quiet" style={{ textAlign: 'right' }}>
                {bound === undefined
                  ? t(`policy.${policy}.about`)
                  : bound === orders
                    ? t('policy.best')
                    : t('policy.bound', { bound: number(bound) })}
              </Text>
            </View>
          ))}
        </View>
        {rows.map(({ name, of, show = number, less = false }) => {
          const values = found.tallies.map(of);
          const best = less ? Math.min(...values) : Math.max(...values);
          const differ = new Set(values).size > 1;
          const most = Math.max(1, ...values.map(Math.abs));
          return (
            <View
              key={name}
              role="row"
              style={{ flexDirection: 'row', borderBottomWidth: 1, borderColor: surface.line }}
            >
              <View role="rowheader" style={{ width: 176, padding: 8 }}>
                <Text>{name}</Text>
              </View>
              {values.map((value, i) => (
                <View key={found.tallies[i]!.policy} role="cell" style={cell}>
                  <View
                    style={{
                      position: 'absolute',
                      left: 4,
                      top: 6,
                      bottom: 6,
                      width: (BAR * Math.abs(value)) / most,
                      backgroundColor: surface.sunk,
                    }}
                  />
                  <Text kind={differ && value === best ? 'strong' : 'number'}>
                    {i > 0 && value !== values[0] && (
                      <Text kind="small" colour="quiet">
                        {`${value > values[0]! ? '+' : '–'}${show(Math.abs(value - values[0]!))}  `}
                      </Text>
                    )}
                    {show(value)}
                  </Text>
                </View>
              ))}
            </View>
          );
        })}
        {onPut && (
          <View style={{ flexDirection: 'row', paddingTop: 8 }}>
            <View style={{ width: 176 }} />
            {found.tallies.map(({ policy }) => (
              <View key={policy} style={{ width: CELL, paddingLeft: 8 }}>
                <Button
                  title={t('policy.put')}
                  label={t('policy.putBy', { policy: t(`policy.${policy}.name`) })}
                  onPress={() => onPut(policy)}
                />
              </View>
            ))}
          </View>
        )}
      </View>
    </ScrollView>
  );
}

function Sides({ found }: { found: PolicyComparison }) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const [one, setOne] = useState<DeskPolicy>('priority');
  const [two, setTwo] = useState<DeskPolicy>('most-orders');
  const options = deskPolicies.map((value) => ({ value, title: t(`policy.${value}.name`) }));
  const [a, b] = [deskPolicies.indexOf(one), deskPolicies.indexOf(two)];
  const rows = found.sides.filter((s) => s.complete[a] !== s.complete[b]);
  const gained = rows.filter((s) => s.complete[b]).length;
  return (
    <Column gap={10}>
      <Text kind="heading" level={2}>
        {t('policy.sides')}
      </Text>
      <Row gap={16}>
        <Choice label={t('policy.from')} value={one} onChange={setOne} options={options} />
        <Choice label={t('policy.to')} value={two} onChange={setTwo} options={options} />
      </Row>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text colour="quiet">{t('policy.change', { gained: number(gained), lost: number(rows.length - gained) })}</Text>
        <ListExport
          name="policies"
          rows={() =>
            rows.map((s) => ({
              order: s.number,
              customer: s.customer,
              class: s.class,
              due: s.due,
              [one]: s.complete[a] ? 'yes' : 'no',
              [two]: s.complete[b] ? 'yes' : 'no',
            }))
          }
        />
      </Row>
      <View role="list" aria-label={t('policy.sides')} style={{ borderTopWidth: 1, borderColor: surface.line }}>
        {rows.slice(0, 200).map((s) => (
          <Pressable
            key={s.order}
            role="listitem"
            onPress={() => router.navigate(`/desk/orders/${s.order}`)}
            style={{ borderBottomWidth: 1, borderColor: surface.line, paddingVertical: 8 }}
          >
            <Row gap={12} style={{ justifyContent: 'space-between' }}>
              <Text lines={1} style={{ flexShrink: 1 }}>
                <Text kind="strong">{s.number}</Text> {s.customer}, {t('order.class', { class: s.class })},{' '}
                {dayName(s.due, me.site.timeZone, now)}
              </Text>
              <Signal
                kind={s.complete[b] ? 'done' : 'caution'}
                text={t(s.complete[b] ? 'policy.gains' : 'policy.loses')}
              />
            </Row>
          </Pressable>
        ))}
      </View>
    </Column>
  );
}
