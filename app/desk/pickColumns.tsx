import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions } from 'react-native';
import type { PickedRow } from '@hand-relay/contract';
import { useMe, useNow } from '../state/index.ts';
import { clock, moment, number } from '../text/index.ts';
import { Column, Shape, Row, Text, WIDE, type TableColumn } from '../ui/index.ts';
import type { PickSort } from './picks.ts';

/**
 * Columns of the list of picks; on a phone one wide one and the units.
 *
 * @param days whether they are of several days
 */
export function usePickColumns(days: boolean): TableColumn<PickedRow>[] {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const wide = useWindowDimensions().width >= WIDE;
  const when = (r: PickedRow) => (days ? moment(r.at, me.site.timeZone, now) : clock(r.at, me.site.timeZone));
  const how = (r: PickedRow) =>
    r.touched.length === 0
      ? t('picks.scanned')
      : t('picks.touched', { what: r.touched.map((w) => t(`picks.check.${w}`, { defaultValue: w })).join(', ') });
  const units = (r: PickedRow) =>
    r.picked < r.asked ? t('picks.of', { picked: number(r.picked), asked: number(r.asked) }) : number(r.picked);
  const column = (
    key: PickSort,
    title: string,
    width: number,
    cell: TableColumn<PickedRow>['cell'],
    more: Partial<TableColumn<PickedRow>> = { fixed: true },
  ): TableColumn<PickedRow> => ({ key, title, width, sortable: true, cell, ...more });
  const figure = { fixed: true, align: 'right' as const };
  const unitsColumn = column(
    'units',
    t('picks.units'),
    78,
    (r) => (
      <Text kind="number" colour={r.picked < r.asked ? 'caution' : 'ink'}>
        {units(r)}
      </Text>
    ),
    figure,
  );
  if (!wide)
    return [
      column(
        'at',
        t('picks.pick'),
        1,
        (r) => (
          <Column gap={0}>
            <Text lines={1}>
              {r.bin} · {r.item.name}
            </Text>
            <Text kind="small" colour="quiet" lines={1}>
              {[when(r), r.person, r.lot, r.seconds !== null && t('picks.secondsShort', { n: Math.round(r.seconds) })]
                .filter(Boolean)
                .join(' · ')}
            </Text>
          </Column>
        ),
        {},
      ),
      unitsColumn,
    ];
  return [
    column('at', t('picks.at'), days ? 130 : 64, (r) => <Text kind="number">{when(r)}</Text>),
    column('person', t('picks.person'), 120, (r) => <Text lines={1}>{r.person}</Text>),
    column('bin', t('picks.bin'), 84, (r) => <Text kind="mono">{r.bin}</Text>),
    column('item', t('picks.item'), 1, (r) => <Text lines={1}>{r.item.name}</Text>, {}),
    column('lot', t('picks.lot'), 84, (r) => <Text kind="mono">{r.lot}</Text>),
    unitsColumn,
    column('how', t('picks.how'), 150, (r) => (
      <Text lines={1} colour={r.touched.length > 0 ? 'caution' : 'quiet'}>
        {how(r)}
      </Text>
    )),
    column(
      'seconds',
      t('picks.seconds'),
      84,
      (r) => (
        <Text kind="number" colour={r.seconds !== null && r.seconds > 2 * r.expected ? 'caution' : 'ink'}>
          {r.seconds === null ? '–' : number(Math.round(r.seconds))}
        </Text>
      ),
      figure,
    ),
    column(
      'expected',
      t('picks.expectedShort'),
      84,
      (r) => (
        <Text kind="number" colour="quiet">
          {number(Math.round(r.expected))}
        </Text>
      ),
      figure,
    ),
    column(
      'refused',
      t('picks.refusedShort'),
      84,
      (r) =>
        r.refused > 0 ? (
          <Row gap={4} style={{ flexWrap: 'nowrap', justifyContent: 'flex-end' }}>
            <Shape kind="refused" size={13} />
            <Text kind="number">{number(r.refused)}</Text>
          </Row>
        ) : null,
      figure,
    ),
    column('order', t('picks.order'), 100, (r) => (
      <Link href={`/desk/orders/${r.order.id}`}>
        <Text kind="mono">{r.order.number}</Text>
      </Link>
    )),
    {
      key: 'run',
      title: t('picks.run'),
      width: 64,
      fixed: true,
      cell: (r) => (
        <Link href={`/floor/runs/${r.run.id}`}>
          <Text kind="mono">{r.run.number}</Text>
        </Link>
      ),
    },
  ];
}
