import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { act, fireEvent, render, screen } from '@testing-library/react-native';
import type { SearchAnswer, WorkPlace } from '@hand-relay/contract';
import { addressOfHit } from '../find/addressOf.ts';
import { FindPanel } from '../find/index.ts';
import { openedBefore, rememberOpened } from '../find/opened.ts';
import { collectKeys } from '../shell/typeAhead.ts';
import { api, MeContext } from '../state/index.ts';
import { aPerson } from './aPerson.ts';

jest.mock('expo-router', () => ({
  useRouter: () => ({ navigate: mockNavigate }),
  Link: ({ children }: { children: React.ReactNode }) => children,
}));
const mockNavigate = jest.fn();

/** Who listens for keys. */
let typing: ((event: object) => void) | null = null;
/** What a browser has and this environment lacks. */
const there = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (name: string) => there.get(name) ?? null,
    setItem: (name: string, value: string) => void there.set(name, value),
  },
  HTMLInputElement: class {},
  addEventListener: (_: string, listener: typeof typing) => (typing = listener),
  removeEventListener: () => (typing = null),
});

const me = aPerson(['orders.see']);
const hit = (id: string, title: string) => ({
  id,
  title,
  within: null,
  about: ['Vale Bees'],
  state: 'open',
  day: null,
});
const answer: SearchAnswer = {
  groups: [
    { kind: 'order', hits: [hit('o1', 'SO-77'), hit('o2', 'SO-770')], more: true },
    { kind: 'person', hits: [hit('pico', 'Pico 77')], more: false },
  ],
};

describe('the address of what was found', () => {
  const address = (kind: Parameters<typeof addressOfHit>[0], places: WorkPlace[], within: string | null = null) =>
    addressOfHit(kind, { id: 'x', within, title: 'A & B' }, places);

  it('is in a place that the person has, the one that shows most of it first', () => {
    expect(address('order', ['bench'])).toBe('/bench/orders/x');
    expect(address('order', ['bench', 'desk'])).toBe('/desk/orders/x');
    expect(address('carton', ['desk', 'dock'], 'o')).toBe('/dock/x');
    expect(address('carton', ['desk'], 'o')).toBe('/desk/orders/o');
    expect(address('run', ['floor'], 'w')).toBe('/floor/runs/x');
    expect(address('run', ['floor', 'desk'], 'w')).toBe('/waves/w');
    expect(address('serial', ['desk'])).toBe('/desk/trace?item=x&serial=A%20%26%20B');
    expect(address('bin', ['desk'])).toBe('/desk/trace?place=x');
  });

  it('is none where no place of theirs shows it', () => {
    for (const kind of ['order', 'wave', 'item', 'bin', 'customer', 'person', 'load', 'shipment'] as const)
      expect([kind, address(kind, ['floor'])]).toEqual([kind, null]);
  });
});

describe('the field that finds anything', () => {
  const asked = jest.fn();
  const shown = (ahead = () => '') => {
    jest.spyOn(api, 'useSearchQuery').mockImplementation(((query: { text: string }, { skip }: { skip: boolean }) => {
      if (!skip) asked(query);
      return { data: skip ? undefined : answer, isFetching: false, error: undefined, refetch: () => undefined };
    }) as never);
    const onClose = jest.fn();
    render(
      <ThemeProvider theme={createTheme({})}>
        <MeContext.Provider value={me}>
          <FindPanel text="" ahead={{ current: ahead }} onClose={onClose} />
        </MeContext.Provider>
      </ThemeProvider>,
    );
    return onClose;
  };
  const field = () => screen.getByLabelText('Find anything');
  const settle = () => act(() => jest.advanceTimersByTime(200));
  beforeEach(() => {
    jest.useFakeTimers();
    there.clear();
    asked.mockClear();
    mockNavigate.mockClear();
  });
  afterEach(() => {
    jest.restoreAllMocks();
    jest.useRealTimers();
  });

  it('asks once the text has settled, and Enter opens the first or the one that arrows chose', () => {
    const onClose = shown();
    for (const text of ['s', 'so', 'so 77']) fireEvent.changeText(field(), text);
    settle();
    expect(asked.mock.calls.map(([query]) => query as object)).toEqual(expect.arrayContaining([{ text: 'so 77' }]));
    expect(asked.mock.calls.some(([query]) => (query as { text: string }).text === 'so')).toBe(false);
    fireEvent(screen.getByLabelText('Find'), 'keyDownCapture', {
      key: 'ArrowDown',
      preventDefault: () => undefined,
    });
    // What this person has no place for is shown, and is no stop of the arrows.
    fireEvent(screen.getByLabelText('Find'), 'keyDownCapture', {
      key: 'ArrowDown',
      preventDefault: () => undefined,
    });
    expect(screen.getByText('Pico 77')).toBeTruthy();
    fireEvent(field(), 'submitEditing');
    expect(mockNavigate).toHaveBeenCalledWith('/desk/orders/o2');
    expect(onClose).toHaveBeenCalled();
    expect(openedBefore('p', 's').map((row) => row.title)).toEqual(['SO-770']);
  });

  it('shows more of one kind, and what was opened before while nothing is typed', () => {
    rememberOpened({ ...hit('o9', 'SO-9'), kind: 'order', href: '/desk/orders/o9', person: 'p', site: 's' });
    rememberOpened({ ...hit('o8', 'SO-8'), kind: 'order', href: '/desk/orders/o8', person: 'other', site: 's' });
    shown();
    expect(screen.getByText('SO-9')).toBeTruthy();
    expect(screen.queryByText('SO-8')).toBeNull();
    fireEvent.changeText(field(), '77');
    settle();
    fireEvent.press(screen.getByText('More: Orders'));
    expect(asked).toHaveBeenLastCalledWith({ text: '77', kind: 'order' });
  });

  it('takes what was typed before it was there', () => {
    const end = collectKeys();
    for (const key of ['p', 'x', 'Backspace', 'o', 'Shift'])
      typing!({ key, target: null, preventDefault: () => undefined, stopImmediatePropagation: () => undefined });
    shown(end);
    fireEvent(field(), 'focus');
    expect(field().props['value']).toBe('po');
    expect(typing).toBeNull();
  });
});
