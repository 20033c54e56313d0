import { createAsyncThunk, createSlice } from '@reduxjs/toolkit';
import { orderFromRow, type OrderRow } from '@hand-relay/contract';
import { call, networkError, type Trouble } from './call.ts';
import { idle } from './idle.ts';

export type OrderStatus = 'open' | 'closed';

interface OrderListState {
  status: OrderStatus;
  rows: Record<string, OrderRow>;
  total: number;
  reading: boolean;
  read: boolean;
  trouble: Trouble | null;
  /** Names the reading under way: pages of one that was overtaken are dropped. */
  reader: string;
  /** Orders that were refreshed since the page under way was asked for: what it says of them may be older. */
  newer: Record<string, true>;
  /** The last request that asked for an order: of two, the answer of the first may arrive last. */
  asked: Record<string, string>;
}

const initialState: OrderListState = {
  status: 'open',
  rows: {},
  total: 0,
  reading: false,
  read: false,
  trouble: null,
  reader: '',
  newer: {},
  asked: {},
};

/** The first page is short, so that the list is there at once; the others follow in pages the server reads quickly. */
const FIRST = 250;
const NEXT = 1000;

type Page = { rows: (string | number | null)[][]; next: string | null; total: number };

/** Reads all orders of a status, page by page. */
export const readOrders = createAsyncThunk<void, OrderStatus, { rejectValue: Trouble }>(
  'orderList/read',
  async (status, thunk) => {
    let after: string | undefined;
    for (let page = 0; ; page++) {
      thunk.dispatch(orderList.actions.pageAsked());
      const answer = await call({ name: 'orders', query: { status, limit: page === 0 ? FIRST : NEXT, after } });
      if ('error' in answer) return thunk.rejectWithValue(answer.error);
      const { rows, next, total } = answer.data as Page;
      thunk.dispatch(
        orderList.actions.page({ reader: thunk.requestId, rows: rows.map(orderFromRow), total, first: page === 0 }),
      );
      if (!next) return undefined;
      after = next;
      await idle();
    }
  },
);

/** Reads some orders again, after others changed them. */
export const refreshOrders = createAsyncThunk<void, string[]>('orderList/refresh', async (ids, thunk) => {
  const answer = await call({ name: 'orders', query: { ids: ids.join(',') } });
  if ('data' in answer)
    thunk.dispatch(
      orderList.actions.changed({ by: thunk.requestId, rows: (answer.data as Page).rows.map(orderFromRow) }),
    );
});

const orderList = createSlice({
  name: 'orderList',
  initialState,
  reducers: {
    pageAsked(state) {
      state.newer = {};
    },
    page(state, { payload }: { payload: { reader: string; rows: OrderRow[]; total: number; first: boolean } }) {
      if (payload.reader !== state.reader) return;
      if (payload.first) state.rows = Object.fromEntries(Object.entries(state.rows).filter(([id]) => state.newer[id]));
      for (const row of payload.rows) if (!state.newer[row.id]) state.rows[row.id] = row;
      state.total = payload.total;
      state.read = true;
    },
    changed(state, { payload }: { payload: { by: string; rows: OrderRow[] } }) {
      for (const row of payload.rows) {
        if (state.asked[row.id] !== payload.by) continue;
        delete state.asked[row.id];
        if (state.reading) state.newer[row.id] = true;
        if (row.status === state.status || (state.status === 'closed' && row.status === 'cancelled')) {
          if (!state.rows[row.id]) state.total += 1;
          state.rows[row.id] = row;
        } else if (state.rows[row.id]) {
          delete state.rows[row.id];
          state.total -= 1;
        }
      }
    },
  },
  extraReducers: (builder) =>
    builder
      .addCase(readOrders.pending, (state, { meta }) => {
        if (state.status !== meta.arg) {
          state.rows = {};
          state.read = false;
        }
        state.status = meta.arg;
        state.reader = meta.requestId;
        state.reading = true;
        state.trouble = null;
      })
      .addCase(refreshOrders.pending, (state, { meta }) => {
        for (const id of meta.arg) state.asked[id] = meta.requestId;
      })
      .addCase(readOrders.fulfilled, (state, { meta }) => {
        if (meta.requestId === state.reader) state.reading = false;
      })
      .addCase(readOrders.rejected, (state, { meta, payload }) => {
        if (meta.requestId !== state.reader) return;
        state.reading = false;
        state.trouble = payload ?? networkError;
      }),
});

export const orderListReducer = orderList.reducer;
