import type { Row as SheetRow } from '@hand-relay/core/reading/sheets';

/** Rows as they are shown: found in any column, sorted by one. */
export function arrange(
  rows: readonly SheetRow[],
  { find, retired, sort, down }: { find: string; retired: boolean; sort: string; down: boolean },
): SheetRow[] {
  const text = find.trim().toLowerCase();
  const way = down ? -1 : 1;
  return rows
    .filter((row) => (row['retired'] === true) === retired)
    .filter(
      (row) =>
        !text ||
        Object.values(row).some((v) =>
          String(v ?? '')
            .toLowerCase()
            .includes(text),
        ),
    )
    .sort((a, b) => {
      const [x, y] = [a[sort] ?? '', b[sort] ?? ''];
      return (
        way *
        (typeof x === 'number' && typeof y === 'number'
          ? x - y
          : String(x).localeCompare(String(y), 'en', { numeric: true }))
      );
    });
}
