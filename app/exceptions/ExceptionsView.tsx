import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View, type TextInput } from 'react-native';
import { exceptionKinds, type ExceptionKind, type ExceptionRow } from '@hand-relay/contract';
import { api, troubleOf, useMe, words } from '../state/index.ts';
import { clock } from '../text/index.ts';
import { Choice, Column, Empty, Failed, Field, Loading, Text, useShortcuts, WIDE } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { DeskTabs, ListExport } from '../desk/index.ts';
import { ExceptionCard } from './ExceptionCard.tsx';
import { SettledToday } from './SettledToday.tsx';
import { reasonOf, titleOf } from './exceptionWords.ts';

type Show = ExceptionKind | 'all';

/** All that went wrong on the floor and waits for somebody: by kind, found by any word, with what was settled today. */
export function ExceptionsView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const wide = useWindowDimensions().width >= WIDE;
  const { kind = 'all', find = '' } = useLocalSearchParams<{ kind?: Show; find?: string }>();
  const set = (params: { kind?: Show; find?: string }) => router.setParams(params);
  const { data, error, refetch } = api.useExceptionsQuery();
  const [at, setAt] = useState(0);
  const finder = useRef<TextInput>(null);
  const shown = useMemo(() => {
    const wanted = find.trim().toLowerCase();
    return (data?.exceptions ?? []).filter(
      (e) => (kind === 'all' || e.kind === kind) && (wanted === '' || textOf(e).includes(wanted)),
    );
  }, [data, kind, find]);
  const open = shown.filter((e) => !e.settled);
  const settled = shown.filter((e) => e.settled);
  const all = data?.exceptions.filter((e) => !e.settled) ?? [];
  const current = open[Math.min(at, open.length - 1)];
  const step = (by: number) => setAt(Math.max(0, Math.min(open.length - 1, at + by)));
  useShortcuts({
    Escape: () => router.navigate('/desk'),
    f: () => finder.current?.focus(),
    j: () => step(1),
    k: () => step(-1),
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    Enter: () => current?.order && router.navigate(`/desk/orders/${current.order.id}`),
  });
  const options: { value: Show; title: string }[] = [
    { value: 'all', title: t('exceptions.kind.all', { count: all.length }) },
    ...exceptionKinds.flatMap((value) => {
      const count = all.filter((e) => e.kind === value).length;
      return count > 0 || value === kind ? [{ value, title: t(`exceptions.kind.${value}`, { count }) }] : [];
    }),
  ];
  const rows = () => shown.map((e) => saved(e, me.site.timeZone));
  return (
    <Page title={t('exceptions.heading')} aside={<DeskTabs at="exceptions" />}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={4} />}
      {data && (
        <Column gap={12}>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-end' }}>
            <View style={{ width: wide ? 280 : '100%' }}>
              <Field
                inputRef={finder}
                label={t('exceptions.find')}
                value={find}
                onChange={(text) => set({ find: text })}
              />
            </View>
            {shown.length > 0 && <ListExport name="exceptions" rows={rows} />}
          </View>
          {options.length > 2 && (
            <Choice
              bare
              label={t('exceptions.kinds')}
              value={kind}
              options={options}
              onChange={(k) => set({ kind: k })}
            />
          )}
          {open.length === 0 &&
            (all.length === 0 ? (
              <Empty title={t('exceptions.noneTitle')} text={t('exceptions.noneText')} />
            ) : (
              <Empty title={t('exceptions.noMatchTitle')} text={t('exceptions.noMatchText', { count: all.length })} />
            ))}
          <View style={{ maxWidth: 900, gap: 8 }}>
            {open.map((e) => (
              <ExceptionCard key={e.id} exception={e} here={wide && e === current && at > 0} />
            ))}
            <SettledToday settled={settled} />
          </View>
          {open.length > 0 && wide && (
            <Text kind="small" colour="quiet">
              {t('exceptions.keys')}
            </Text>
          )}
        </Column>
      )}
    </Page>
  );
}

/** All that a person may look for. */
const textOf = (e: ExceptionRow): string =>
  [
    titleOf(e),
    reasonOf(e),
    e.note,
    e.by,
    e.lot,
    e.order?.number,
    e.order?.customer,
    e.run?.number,
    e.item?.sku,
    e.place,
  ]
    .join(' ')
    .toLowerCase();

const saved = (e: ExceptionRow, timeZone: string) => ({
  kind: e.kind,
  at: e.at,
  time: clock(e.at, timeZone),
  by: e.by,
  order: e.order?.number ?? '',
  customer: e.order?.customer ?? '',
  line: e.line ?? '',
  run: e.run?.number ?? '',
  place: e.place,
  item: e.item?.sku ?? '',
  name: e.item?.name ?? String(e.facts['item'] ?? ''),
  lot: e.lot,
  units: e.units,
  still_open: e.open,
  reason: reasonOf(e),
  note: e.note,
  count: e.count ?? '',
  settled: e.settled?.how ?? '',
  settled_at: e.settled?.at ?? '',
  settled_by: e.settled?.by ?? '',
  settled_note: e.settled?.note ?? '',
});
