import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useRef, type ReactNode } from 'react';
import { Pressable, View, type GestureResponderEvent } from 'react-native';
import { Checkbox } from './Checkbox.tsx';
import { LinkBox } from './LinkBox.tsx';
import { useHandoffRow } from './handoff.tsx';
import { useSurface } from './theme.ts';
import { Text } from './Text.tsx';

export interface TableColumn<T> {
  key: string;
  title: string;
  /** Share of the width, or with `fixed` pixels. */
  width: number;
  fixed?: boolean;
  align?: 'left' | 'right';
  sortable?: boolean;
  cell: (row: T) => ReactNode;
}

export type TableEntry<T> =
  { kind: 'group'; key: string; title: string; detail: string } | { kind: 'row'; key: string; row: T };

export interface DataTableProps<T> {
  columns: TableColumn<T>[];
  entries: TableEntry<T>[];
  rowHeight?: number;
  sort?: { key: string; down: boolean } | undefined;
  /** By what rows are sorted that are equal so far. */
  then?: readonly { key: string; down: boolean }[];
  /** `also`: behind what it is sorted by already, where the shift key is held. */
  onSort?: (key: string, also: boolean) => void;
  /** Row that the keyboard is at. */
  current?: string | undefined;
  chosen?: ReadonlySet<string>;
  onChoose?: (key: string) => void;
  onChooseAll?: () => void;
  allChosen?: boolean;
  onOpen?: (row: T) => void;
  /** The address that a row opens, where it has one: its first cell is a real link then. */
  hrefOf?: (row: T) => string;
  nameOf: (row: T) => string;
  chooseLabel?: (row: T) => string;
  chooseAllLabel?: string;
}

function cell<T>(c: TableColumn<T>) {
  return {
    ...(c.fixed ? { width: c.width } : { flexGrow: c.width, flexBasis: 0, minWidth: 0 }),
    paddingHorizontal: 8,
    alignItems: c.align === 'right' ? ('flex-end' as const) : ('flex-start' as const),
    justifyContent: 'center' as const,
  };
}

type Does<T> = Pick<DataTableProps<T>, 'onOpen' | 'hrefOf' | 'onChoose' | 'nameOf' | 'chooseLabel'>;

interface TableRowProps<T> {
  entry: Extract<TableEntry<T>, { kind: 'row' }>;
  index: number;
  top: number;
  height: number;
  columns: TableColumn<T>[];
  picked: boolean;
  here: boolean;
  choosable: boolean;
  openable: boolean;
  /** What the table does now: a row is not drawn again because a handler is another one. */
  does: { current: Does<T> };
}

/** One row. Rows are drawn again when what they show changes, however often the list around them does. */
const TableRow = memo(
  OneRow,
  (a, b) =>
    a.entry.row === b.entry.row &&
    a.top === b.top &&
    a.height === b.height &&
    a.index === b.index &&
    a.columns === b.columns &&
    a.picked === b.picked &&
    a.here === b.here &&
    a.choosable === b.choosable &&
    a.openable === b.openable,
) as typeof OneRow;

function OneRow<T>({ entry, index, top, height, columns, picked, here, choosable, openable, does }: TableRowProps<T>) {
  const surface = useSurface();
  const { row, key } = entry;
  const open = () => does.current.onOpen?.(row);
  const { hrefOf, nameOf, chooseLabel } = does.current;
  const first = { alignSelf: 'stretch', minHeight: Math.min(40, height - 1), justifyContent: 'center' } as const;
  const { edgeStyle, within } = useHandoffRow();
  return (
    <Pressable
      role="row"
      aria-rowindex={index + 1}
      aria-selected={picked}
      aria-current={here ? 'true' : undefined}
      tabIndex={-1}
      onPress={open}
      style={{
        position: 'absolute',
        top,
        left: 0,
        right: 0,
        height,
        flexDirection: 'row',
        borderBottomWidth: 1,
        borderColor: surface.line,
        borderLeftWidth: 3,
        borderLeftColor: here ? surface.ink : 'transparent',
        backgroundColor: here || picked ? surface.chosen : 'transparent',
        paddingRight: 12,
        ...edgeStyle,
      }}
    >
      {choosable && (
        <View role="cell" style={{ width: 41, alignItems: 'center', justifyContent: 'center' }}>
          <Checkbox
            checked={picked}
            onPress={() => does.current.onChoose?.(key)}
            label={chooseLabel?.(row) ?? nameOf(row)}
          />
        </View>
      )}
      {within(
        columns.map((c, n) => (
          <View key={c.key} role="cell" style={cell(c)}>
            {n === 0 && openable && hrefOf ? (
              <LinkBox href={hrefOf(row)} label={nameOf(row)} onOpen={open} style={first}>
                {c.cell(row)}
              </LinkBox>
            ) : n === 0 && openable ? (
              <Pressable role="link" aria-label={nameOf(row)} onPress={open} style={first}>
                {c.cell(row)}
              </Pressable>
            ) : (
              c.cell(row)
            )}
          </View>
        )),
      )}
    </Pressable>
  );
}

/** Whether the shift key was held: on the web a press carries the event of the mouse or key. */
const isShifted = (event: GestureResponderEvent) =>
  Boolean((event.nativeEvent as unknown as { shiftKey?: boolean }).shiftKey);

/** A table of any length: only the rows in view are drawn. */
export function DataTable<T>({
  columns,
  entries,
  rowHeight = 44,
  sort,
  then = [],
  onSort,
  current,
  chosen,
  onChoose,
  onChooseAll,
  allChosen,
  onOpen,
  hrefOf,
  nameOf,
  chooseLabel,
  chooseAllLabel,
}: DataTableProps<T>) {
  const surface = useSurface();
  const scroller = useRef<HTMLElement | null>(null);
  const list = useVirtualizer({
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (entries[i]?.kind === 'group' ? Math.min(38, rowHeight) : rowHeight),
    getItemKey: (i) => entries[i]?.key ?? i,
    overscan: 5,
  });
  useEffect(() => list.measure(), [list, entries, rowHeight]);
  const at = current === undefined ? -1 : entries.findIndex((e) => e.key === current);
  useEffect(() => {
    if (at >= 0) list.scrollToIndex(at, { align: 'auto' });
  }, [at, list]);
  const does = useRef<Does<T>>({ onOpen, hrefOf, onChoose, nameOf, chooseLabel });
  does.current = { onOpen, hrefOf, onChoose, nameOf, chooseLabel };

  return (
    <View role="table" aria-rowcount={entries.length} style={{ flex: 1, minHeight: 0 }}>
      <View role="rowgroup">
        <View
          role="row"
          style={{
            flexDirection: 'row',
            minHeight: Math.min(40, rowHeight),
            borderBottomWidth: 1,
            borderColor: surface.quiet,
            paddingRight: 12,
            // As wide as the mark of the row at hand.
            paddingLeft: onChoose ? 0 : 3,
          }}
        >
          {onChoose && (
            <View role="columnheader" style={{ width: 44, alignItems: 'center', justifyContent: 'center' }}>
              <Checkbox checked={allChosen ?? false} onPress={() => onChooseAll?.()} label={chooseAllLabel ?? ''} />
            </View>
          )}
          {columns.map((c) => {
            const all = sort ? [sort, ...then] : [];
            const place = all.findIndex((s) => s.key === c.key);
            const sorted = place < 0 ? undefined : all[place]!;
            const head = (
              <Text kind="label" colour={sorted ? 'ink' : 'quiet'} lines={1}>
                {c.title}
                {sorted ? `${sorted.down ? ' ↓' : ' ↑'}${all.length > 1 ? place + 1 : ''}` : ''}
              </Text>
            );
            return (
              <View
                key={c.key}
                role="columnheader"
                aria-sort={sorted ? (sorted.down ? 'descending' : 'ascending') : 'none'}
                style={cell(c)}
              >
                {c.sortable && onSort ? (
                  <Pressable
                    role="button"
                    onPress={(event) => onSort(c.key, isShifted(event))}
                    style={{ minHeight: Math.min(40, rowHeight), justifyContent: 'center' }}
                  >
                    {head}
                  </Pressable>
                ) : (
                  head
                )}
              </View>
            );
          })}
        </View>
      </View>
      <View ref={scroller as never} role="rowgroup" tabIndex={0} style={{ flex: 1, minHeight: 0, overflow: 'scroll' }}>
        <View role="presentation" style={{ height: list.getTotalSize() }}>
          {list.getVirtualItems().map((v) => {
            const entry = entries[v.index]!;
            const place = { position: 'absolute' as const, top: v.start, left: 0, right: 0, height: v.size };
            if (entry.kind === 'group')
              return (
                <View
                  key={v.key}
                  role="row"
                  style={[
                    place,
                    {
                      flexDirection: 'row',
                      alignItems: 'flex-end',
                      gap: 12,
                      paddingHorizontal: 12,
                      paddingBottom: 5,
                      borderBottomWidth: 1,
                      borderColor: surface.line,
                      backgroundColor: surface.sunk,
                    },
                  ]}
                >
                  <View role="cell" style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 12 }}>
                    <Text kind="strong">{entry.title}</Text>
                    <Text kind="small" colour="quiet">
                      {entry.detail}
                    </Text>
                  </View>
                </View>
              );
            return (
              <TableRow
                key={v.key}
                entry={entry}
                index={v.index}
                top={v.start}
                height={v.size}
                columns={columns}
                picked={chosen?.has(entry.key) ?? false}
                here={entry.key === current}
                choosable={Boolean(onChoose)}
                openable={Boolean(onOpen)}
                does={does}
              />
            );
          })}
        </View>
      </View>
    </View>
  );
}
