import type { DayReport } from '@hand-relay/contract';

type Cells = (string | number)[][];

/** A day's report as one sheet of a workbook, a block below the other; instants as the standard writes them. */
export function reportCells(date: string, report: DayReport): Cells {
  const block = (name: string, rows: readonly object[]): Cells =>
    rows.length === 0
      ? []
      : [
          [],
          [name],
          Object.keys(rows[0]!),
          ...rows.map((row) =>
            Object.values(row).map((v: string | number | null) =>
              v === null ? '' : typeof v === 'number' ? Math.round(v) : v,
            ),
          ),
        ];
  return [
    ['date', date],
    ['shipments', report.shipments],
    ['cartons', report.cartons],
    ['weight_g', Math.round(report.weightG)],
    ...block('departures', report.departures),
    ...block('people', report.people),
    ...block('shorts', report.shorts),
    ...block(
      'waves',
      report.waves.map(({ id: _, ...w }) => w),
    ),
  ];
}
