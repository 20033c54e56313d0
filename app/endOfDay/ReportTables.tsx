import { Link } from 'expo-router';
import type { ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, View } from 'react-native';
import type { DayReport } from '@hand-relay/contract';
import { clock, duration, mass, number } from '../text/index.ts';
import { useMe } from '../state/index.ts';
import { Column, Facts, Text, useSurface } from '../ui/index.ts';

interface Cell<T> {
  title: string;
  width: number;
  right?: boolean;
  of: (row: T) => ReactNode;
}

/** A small table that is shown whole; on a phone it is moved sideways. */
function Small<T>({ title, cells, rows, none }: { title: string; cells: Cell<T>[]; rows: readonly T[]; none: string }) {
  const surface = useSurface();
  const line = {
    flexDirection: 'row' as const,
    borderBottomWidth: 1,
    borderColor: surface.line,
    minHeight: 36,
    alignItems: 'center' as const,
  };
  return (
    <Column gap={4}>
      <Text kind="heading" level={2}>
        {title}
      </Text>
      {rows.length === 0 ? (
        <Text colour="quiet">{none}</Text>
      ) : (
        <ScrollView horizontal showsHorizontalScrollIndicator={false}>
          <View role="table" aria-label={title}>
            <View role="row" style={line}>
              {cells.map((c) => (
                <View
                  key={c.title}
                  role="columnheader"
                  style={{ width: c.width, paddingRight: 16, alignItems: c.right ? 'flex-end' : 'flex-start' }}
                >
                  <Text kind="label" colour="quiet">
                    {c.title}
                  </Text>
                </View>
              ))}
            </View>
            {rows.map((row, i) => (
              <View key={i} role="row" style={line}>
                {cells.map((c) => (
                  <View
                    key={c.title}
                    role="cell"
                    style={{ width: c.width, paddingRight: 16, alignItems: c.right ? 'flex-end' : 'flex-start' }}
                  >
                    {typeof c.of(row) === 'object' ? (
                      c.of(row)
                    ) : (
                      <Text kind={c.right ? 'number' : 'body'} lines={1}>
                        {c.of(row)}
                      </Text>
                    )}
                  </View>
                ))}
              </View>
            ))}
          </View>
        </ScrollView>
      )}
    </Column>
  );
}

/** What the day came to. */
export function ReportTables({ report }: { report: DayReport }) {
  const { t } = useTranslation();
  const me = useMe();
  const time = (instant: string | null) => (instant ? clock(instant, me.site.timeZone) : '–');
  const sum = (of: (d: DayReport['departures'][number]) => number) => report.departures.reduce((n, d) => n + of(d), 0);
  const figure = (title: string, width = 84) => ({ title, width, right: true });
  return (
    <Column gap={24}>
      <Facts
        figures
        facts={[
          { name: t('day.orders'), value: number(sum((d) => d.orders)) },
          { name: t('day.full'), value: number(sum((d) => d.full)) },
          { name: t('day.partial'), value: number(sum((d) => d.partial)) },
          { name: t('day.late'), value: number(sum((d) => d.late)) },
          { name: t('day.notLeft'), value: number(sum((d) => d.open)) },
          { name: t('day.cartons'), value: number(report.cartons) },
          { name: t('day.weight'), value: mass(report.weightG) },
          { name: t('day.refused'), value: number(report.people.reduce((n, p) => n + p.refused, 0)) },
        ]}
      />
      <Small
        title={t('day.departures')}
        none={t('day.noDepartures')}
        rows={report.departures}
        cells={[
          { title: t('day.time'), width: 72, of: (d) => time(d.leavesAt) },
          { title: t('day.departure'), width: 220, of: (d) => d.name || t('orders.noDeparture') },
          { ...figure(t('day.orders')), of: (d) => number(d.orders) },
          { ...figure(t('day.full')), of: (d) => number(d.full) },
          { ...figure(t('day.partial')), of: (d) => number(d.partial) },
          { ...figure(t('day.late')), of: (d) => number(d.late) },
          { ...figure(t('day.notLeft'), 100), of: (d) => number(d.open) },
        ]}
      />
      <Small
        title={t('day.people')}
        none={t('day.nobody')}
        rows={report.people}
        cells={[
          { title: t('day.person'), width: 170, of: (p) => p.person },
          { ...figure(t('day.picks')), of: (p) => number(p.picks) },
          { ...figure(t('day.units')), of: (p) => number(p.units) },
          { ...figure(t('day.time'), 110), of: (p) => (p.seconds > 0 ? duration(p.seconds) : '–') },
          { ...figure(t('day.expected'), 110), of: (p) => (p.picks > 0 ? duration(p.expected) : '–') },
          {
            ...figure(t('day.perHour'), 120),
            of: (p) => (p.seconds > 0 ? number(Math.round((3600 * p.picks) / p.seconds)) : '–'),
          },
          { ...figure(t('day.packed')), of: (p) => number(p.packed) },
          { ...figure(t('day.confirmed'), 100), of: (p) => number(p.shipments) },
          { ...figure(t('day.refused'), 110), of: (p) => number(p.refused) },
        ]}
      />
      <Small
        title={t('day.shorts')}
        none={t('day.noShorts')}
        rows={report.shorts}
        cells={[
          { title: t('day.bin'), width: 96, of: (s) => s.bin },
          { title: t('day.item'), width: 260, of: (s) => s.item },
          { title: t('day.cause'), width: 220, of: (s) => t(`floor.reason.${s.reason}`, { defaultValue: s.reason }) },
          { ...figure(t('day.times')), of: (s) => number(s.times) },
          { ...figure(t('day.units')), of: (s) => number(s.units) },
        ]}
      />
      <Small
        title={t('day.waves')}
        none={t('day.noWaves')}
        rows={report.waves}
        cells={[
          {
            title: t('day.wave'),
            width: 120,
            of: (w) => (
              <Link href={`/waves/${w.id}`}>
                <Text style={{ textDecorationLine: 'underline' }}>{t('waves.number', { number: w.number })}</Text>
              </Link>
            ),
          },
          { ...figure(t('day.orders')), of: (w) => number(w.orders) },
          { ...figure(t('day.foreseen'), 170), of: (w) => time(w.foreseen) },
          { ...figure(t('day.lastPick'), 120), of: (w) => time(w.ended) },
        ]}
      />
    </Column>
  );
}
