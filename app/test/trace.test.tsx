import { Provider } from 'react-redux';
import { createTheme, ThemeProvider } from '@rneui/themed/dist/config';
import { fireEvent, render, screen } from '@testing-library/react-native';
import type { TraceAnswer } from '@hand-relay/contract';
import { TraceView } from '../desk/TraceView.tsx';
import { api, MeContext, store } from '../state/index.ts';
import { SurfaceContext } from '../ui/index.ts';
import { aPerson } from './aPerson.ts';

let mockParams: Record<string, string> = {};
const mockNavigate = jest.fn();
jest.mock('expo-router', () => ({
  useRouter: () => ({ navigate: mockNavigate }),
  usePathname: () => '/desk/trace',
  useGlobalSearchParams: () => mockParams,
  Link: ({ children }: { children: React.ReactNode }) => children,
}));
/** All rows are drawn: there is no height to scroll in. */
jest.mock('@tanstack/react-virtual', () => ({
  useVirtualizer: ({ count }: { count: number }) => ({
    getTotalSize: () => count * 44,
    getVirtualItems: () =>
      Array.from({ length: count }, (_, index) => ({ index, key: index, start: index * 44, size: 44 })),
    scrollToIndex: () => undefined,
    measure: () => undefined,
  }),
}));

const me = aPerson(['orders.see']);
const goods = { item: 'Feed syrup', sku: 'FD-1', lot: 'G1101', serial: '', units: 3 };
const order = { id: 'o', number: 'SO-1' };
const answer: TraceAnswer = {
  item: { id: 'i', name: 'Feed syrup', sku: 'FD-1' },
  place: null,
  onHand: 41,
  shippedUnits: 6,
  now: [
    { ...goods, units: 41, place: 'M-04-2', kind: 'bin', bestBefore: '2027-02-04', blocked: 'damaged', order: null },
  ],
  shipped: ['C1', 'C1'].map((customerNumber, n) => ({
    ...goods,
    at: `2026-03-0${n + 1}T09:00:00.000Z`,
    shipment: { id: `s${n}`, number: `SH-${n}` },
    order,
    reference: 'PO 77',
    customer: 'Vale Bees',
    customerNumber,
    address: '5 Weir Street, Dunmere',
    tracking: null,
  })),
  moves: [
    {
      ...goods,
      id: 1,
      at: '2026-03-01T08:00:00.000Z',
      from: 'M-04-2',
      to: 'CART-01-1',
      reason: 'pick',
      person: 'Pico',
      order,
    },
  ],
  more: false,
};

function shown(params: Record<string, string>, found: Partial<TraceAnswer> = {}) {
  mockParams = params;
  const asked = jest
    .spyOn(api, 'useTraceQuery')
    .mockReturnValue({ currentData: { ...answer, ...found }, refetch: () => undefined } as never);
  render(
    <Provider store={store}>
      <ThemeProvider theme={createTheme({})}>
        <MeContext.Provider value={me}>
          <SurfaceContext.Provider value="paper">
            <TraceView />
          </SurfaceContext.Provider>
        </MeContext.Provider>
      </ThemeProvider>
    </Provider>,
  );
  return asked;
}

describe('a trace', () => {
  afterEach(() => jest.restoreAllMocks());

  it('of a lot begins with who got it, and counts a customer once', () => {
    const asked = shown({ item: 'i', lot: 'G1101' });
    expect(asked).toHaveBeenCalledWith({ item: 'i', lot: 'G1101' });
    expect(screen.getByText('Feed syrup · lot G1101')).toBeTruthy();
    expect(screen.getByText('41')).toBeTruthy();
    expect(screen.getByText('Customers')).toBeTruthy();
    expect(screen.getAllByText('Vale Bees')).toHaveLength(2);
    fireEvent.press(screen.getByText('Here now 1'));
    expect(screen.queryByText('Vale Bees')).toBeNull();
    expect(screen.getByText(/M-04-2/)).toBeTruthy();
    expect(screen.getByText(/Bin, damaged goods/)).toBeTruthy();
    fireEvent.press(screen.getByText('Movements 1'));
    expect(screen.getByText(/Picked/)).toBeTruthy();
    expect(screen.queryByText('Only the newest are listed. Trace one lot or serial number to see all.')).toBeNull();
  });

  it('of a place asks nothing about shipments, and says where there is nothing', () => {
    shown(
      { place: 'b' },
      { item: null, place: { id: 'b', code: 'M-04-2', kind: 'bin' }, now: [], shipped: [], more: true },
    );
    expect(screen.queryByText(/^Shipments/)).toBeNull();
    expect(screen.getByText('None of it is at this site now.')).toBeTruthy();
    expect(screen.getByText('Only the newest are listed. Trace one lot or serial number to see all.')).toBeTruthy();
    fireEvent.press(screen.getByLabelText('Back'));
    expect(mockNavigate).toHaveBeenCalledWith('/desk');
  });
});
