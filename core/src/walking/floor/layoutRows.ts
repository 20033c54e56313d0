import type { Aisle, Blocked, Floor, Place } from './network.ts';

/** A site's layout: its floor, where runs begin, and where they end if elsewhere. */
export interface Layout extends Omit<Floor, 'blocked'> {
  blocked: Blocked[];
  start: Place;
  finish: Place | null;
}

/** Columns of a layout's file, one part of the floor to a row. */
const layoutColumns = ['part', 'aisle', 'x_m', 'y_m', 'from_m', 'to_m', 'one_way'] as const;
type Column = (typeof layoutColumns)[number];
type Cells = Partial<Record<Column, string | number | undefined>>;

/** What is wrong in a layout's file; `row` counts the head as 1. */
export interface LayoutFault {
  row: number;
  column: Column;
  expected:
    | 'known-part'
    | 'known-aisle'
    | 'new-aisle'
    | 'number'
    | 'from-below-to'
    | 'up-or-down'
    | 'one-start'
    | 'two-cross-aisles';
  got: string;
}

/** A layout as rows of a file, the head first. */
export function layoutRows({ aisles, crossAisles, blocked, start, finish }: Layout): string[][] {
  const rows: Cells[] = [
    ...aisles.map((a): Cells => ({
      part: 'aisle',
      aisle: a.id,
      x_m: a.x,
      from_m: a.from,
      to_m: a.to,
      one_way: a.oneWay,
    })),
    ...crossAisles.map((y): Cells => ({ part: 'cross aisle', y_m: y })),
    ...blocked.map((b): Cells => ({
      part: 'blocked',
      ...('aisle' in b ? { aisle: b.aisle } : { y_m: b.crossAisle }),
      from_m: b.from,
      to_m: b.to,
    })),
    { part: 'start', aisle: start.aisle, y_m: start.y },
    ...(finish ? [{ part: 'finish', aisle: finish.aisle, y_m: finish.y }] : []),
  ];
  return [[...layoutColumns], ...rows.map((r) => layoutColumns.map((c) => String(r[c] ?? '')))];
}

/**
 * Reads rows of a file as `layoutRows` writes them: columns in any order, empty rows left out.
 *
 * @returns the layout, or everything that is wrong with the rows
 */
export function readLayout(rows: readonly string[][]): Layout | LayoutFault[] {
  const faults: LayoutFault[] = [];
  const head = (rows[0] ?? []).map((cell) => cell.trim().toLowerCase());
  const [aisles, crossAisles, blocked]: [Aisle[], number[], Blocked[]] = [[], [], []];
  const ends: { start: Place[]; finish: Place[] } = { start: [], finish: [] };
  const named: { row: number; aisle: string }[] = [];
  rows.slice(1).forEach((cells, i) => {
    const row = i + 2;
    const text = (column: Column) => (cells[head.indexOf(column)] ?? '').trim();
    const fail = (column: Column, expected: LayoutFault['expected']) =>
      void faults.push({ row, column, expected, got: text(column) });
    const number = (column: Column): number => {
      const value = Number(text(column).replace(',', '.'));
      if (text(column) === '' || !Number.isFinite(value)) fail(column, 'number');
      return value;
    };
    const optional = (column: Column) => (text(column) === '' ? undefined : number(column));
    const onAisle = () => {
      named.push({ row, aisle: text('aisle') });
      return text('aisle');
    };
    if (cells.every((cell) => cell.trim() === '')) return;
    const part = text('part').toLowerCase();
    if (part === 'aisle') {
      const [from, to, way] = [optional('from_m'), optional('to_m'), text('one_way').toLowerCase()];
      if (way !== '' && way !== 'up' && way !== 'down') fail('one_way', 'up-or-down');
      if (text('aisle') === '' || aisles.some((a) => a.id === text('aisle'))) fail('aisle', 'new-aisle');
      aisles.push({
        id: text('aisle'),
        x: number('x_m'),
        ...(from === undefined ? {} : { from }),
        ...(to === undefined ? {} : { to }),
        ...(way === 'up' || way === 'down' ? { oneWay: way } : {}),
      });
    } else if (part === 'cross aisle') crossAisles.push(number('y_m'));
    else if (part === 'blocked') {
      const [from, to] = [number('from_m'), number('to_m')];
      if (from >= to) fail('to_m', 'from-below-to');
      blocked.push(text('aisle') === '' ? { crossAisle: number('y_m'), from, to } : { aisle: onAisle(), from, to });
    } else if (part === 'start' || part === 'finish') {
      if (ends[part].length > 0) fail('part', 'one-start');
      ends[part].push({ aisle: onAisle(), y: number('y_m') });
    } else fail('part', 'known-part');
  });
  for (const { row, aisle } of named)
    if (!aisles.some((a) => a.id === aisle)) faults.push({ row, column: 'aisle', expected: 'known-aisle', got: aisle });
  const end = { row: rows.length + 1, column: 'part', got: '' } as const;
  if (crossAisles.length < 2) faults.push({ ...end, expected: 'two-cross-aisles' });
  const [start] = ends.start;
  if (!start) faults.push({ ...end, expected: 'one-start' });
  if (faults.length > 0 || !start) return faults.sort((a, b) => a.row - b.row);
  crossAisles.sort((a, b) => a - b);
  return { aisles, crossAisles, blocked, start, finish: ends.finish[0] ?? null };
}
