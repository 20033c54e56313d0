import { useWindowDimensions } from 'react-native';
import type { RunSummary } from '@hand-relay/contract';
import { distance, i18n, number } from '../text/index.ts';
import { DataTable, Text, WIDE, type TableColumn } from '../ui/index.ts';

/** Runs of a wave as a list. */
export function RunTable({
  runs,
  current,
  onOpen,
}: {
  runs: RunSummary[];
  current: string | undefined;
  onOpen: (run: RunSummary) => void;
}) {
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  return (
    <DataTable
      columns={runColumns(wide)}
      entries={runs.map((row) => ({ kind: 'row', key: row.id, row }))}
      rowHeight={wide ? 44 : 60}
      current={current}
      onOpen={onOpen}
      hrefOf={(run) => `/floor/runs/${run.id}`}
      nameOf={(row) => `${row.number} ${row.callSign}`}
    />
  );
}

function runColumns(wide: boolean): TableColumn<RunSummary>[] {
  return [
    {
      key: 'number',
      title: i18n.t('waves.run'),
      width: 64,
      fixed: true,
      cell: (r) => <Text kind="strong">{r.number}</Text>,
    },
    { key: 'callSign', title: i18n.t('waves.callSign'), width: 1, cell: (r) => <Text lines={1}>{r.callSign}</Text> },
    {
      key: 'state',
      title: i18n.t('waves.picker'),
      width: 1,
      cell: (r) => (
        <Text lines={1} colour={r.picker ? 'ink' : 'quiet'}>
          {r.picker ?? r.assigned ?? (r.team || i18n.t(`waves.runState.${r.state}`))}
        </Text>
      ),
    },
    ...(wide
      ? ([
          {
            key: 'orders',
            title: i18n.t('waves.orders'),
            width: 64,
            fixed: true,
            align: 'right',
            cell: (r) => <Text kind="number">{number(r.orders)}</Text>,
          },
          {
            key: 'stops',
            title: i18n.t('waves.stops'),
            width: 64,
            fixed: true,
            align: 'right',
            cell: (r) => <Text kind="number">{number(r.stops)}</Text>,
          },
          {
            key: 'metres',
            title: i18n.t('waves.walk'),
            width: 72,
            fixed: true,
            align: 'right',
            cell: (r) => <Text kind="number">{distance(r.metres)}</Text>,
          },
        ] satisfies TableColumn<RunSummary>[])
      : []),
    {
      key: 'picked',
      title: i18n.t('waves.picked'),
      width: 92,
      fixed: true,
      align: 'right',
      cell: (r) => <Text kind="number">{`${number(r.picksDone)} / ${number(r.picks)}`}</Text>,
    },
  ];
}
