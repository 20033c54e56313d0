import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { DataTable, SurfaceContext, Text, type TableColumn } from '../ui/index.ts';

// Its font comes later than the test ends.
// Nothing has a height here: the virtual list is told that all of its rows are in view.
jest.mock('@tanstack/react-virtual', () => ({
  useVirtualizer: ({ count, getItemKey }: { count: number; getItemKey: (i: number) => string }) => ({
    measure: () => undefined,
    scrollToIndex: () => undefined,
    getTotalSize: () => count * 44,
    getVirtualItems: () =>
      Array.from({ length: count }, (_, index) => ({ key: getItemKey(index), index, start: index * 44, size: 44 })),
  }),
}));

interface Jar {
  id: string;
  name: string;
}

describe('a table of any length', () => {
  const drawn: string[] = [];
  const columns: TableColumn<Jar>[] = [
    {
      key: 'name',
      title: 'Name',
      width: 1,
      cell: (row) => {
        drawn.push(row.id);
        return <Text>{row.name}</Text>;
      },
    },
  ];
  const table = (
    rows: Jar[],
    more: { current?: string; chosen?: Set<string>; onOpen?: (row: Jar) => void; hrefOf?: (row: Jar) => string } = {},
  ) => (
    <ThemeProvider theme={createTheme({})}>
      <SurfaceContext.Provider value="paper">
        <DataTable
          columns={columns}
          entries={rows.map((row) => ({ kind: 'row' as const, key: row.id, row }))}
          nameOf={(row) => row.name}
          chooseLabel={(row) => `Choose ${row.id}`}
          onChoose={() => undefined}
          onOpen={more.onOpen ?? (() => undefined)}
          {...(more.hrefOf ? { hrefOf: more.hrefOf } : {})}
          current={more.current}
          chosen={more.chosen ?? new Set()}
        />
      </SurfaceContext.Provider>
    </ThemeProvider>
  );
  const jars = ['a', 'b', 'c'].map((id) => ({ id, name: `Jar ${id}` }));
  beforeEach(() => (drawn.length = 0));

  it('draws a row again when what it shows changes, and only that one', () => {
    const view = render(table(jars));
    expect(new Set(drawn)).toEqual(new Set(['a', 'b', 'c']));
    drawn.length = 0;
    view.rerender(table([...jars]));
    expect(drawn).toEqual([]);
    view.rerender(table([jars[0]!, { id: 'b', name: 'Jar of another name' }, jars[2]!]));
    expect(new Set(drawn)).toEqual(new Set(['b']));
    expect(screen.getByText('Jar of another name')).toBeTruthy();
    drawn.length = 0;
    view.rerender(table([jars[0]!, jars[1]!, jars[2]!], { current: 'a', chosen: new Set(['c']) }));
    expect(new Set(drawn)).toEqual(new Set(['a', 'b', 'c']));
  });

  it('does what its table does now, not what it did when the row was drawn', () => {
    const opened: string[] = [];
    const view = render(table(jars, { onOpen: () => opened.push('before') }));
    view.rerender(table(jars, { onOpen: (row) => opened.push(row.id) }));
    fireEvent.press(screen.getByLabelText('Jar b'));
    expect(opened).toEqual(['b']);
  });

  it('leaves a press that asks for a new tab to the browser', () => {
    const opened: string[] = [];
    render(table(jars, { onOpen: (row) => opened.push(row.id), hrefOf: (row) => `/jars/${row.id}` }));
    const link = screen.getByLabelText('Jar b');
    expect((link.props as { href?: string }).href).toBe('/jars/b');
    fireEvent.press(link, { ctrlKey: true });
    fireEvent.press(link, { metaKey: true });
    expect(opened).toEqual([]);
    fireEvent.press(link, {});
    expect(opened).toEqual(['b']);
  });
});
