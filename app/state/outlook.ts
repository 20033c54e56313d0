import { createAsyncThunk, createSlice } from '@reduxjs/toolkit';
import {
  outlookRowFields,
  type DeskView,
  type OutlookAnswer,
  type OutlookRow,
  type ShortItem,
} from '@hand-relay/contract';
import { call, networkError, type Trouble } from './call.ts';
import { idle } from './idle.ts';

interface OutlookState {
  /** What it was computed for, as text; empty before the first time. */
  view: string;
  /** When it was computed; null before the first time. */
  at: string | null;
  rows: Record<string, OutlookRow>;
  short: ShortItem[];
  reading: boolean;
  trouble: Trouble | null;
  /** Orders that changed since it was computed, and whether stock did. */
  changed: Record<string, true>;
  stock: boolean;
}

const initialState: OutlookState = {
  view: '',
  at: null,
  rows: {},
  short: [],
  reading: false,
  trouble: null,
  changed: {},
  stock: false,
};

/** Computes what of the orders in view can leave. */
export const readOutlook = createAsyncThunk<OutlookAnswer, DeskView, { rejectValue: Trouble }>(
  'outlook/read',
  async (view, thunk) => {
    await idle();
    const answer = await call({ name: 'outlook', query: { ...view } });
    return 'error' in answer ? thunk.rejectWithValue(answer.error) : (answer.data as OutlookAnswer);
  },
);

const outlook = createSlice({
  name: 'outlook',
  initialState,
  reducers: {
    /** Something changed that it was computed from. */
    changedSince(state, { payload }: { payload: { topic: string; ids: string[] } }) {
      // While it is computed it may have been read already: what changes then is said to have changed.
      if (state.at === null && !state.reading) return;
      if (payload.topic === 'stock') state.stock = true;
      if (payload.topic === 'orders') for (const id of payload.ids) state.changed[id] = true;
    },
  },
  extraReducers: (builder) =>
    builder
      .addCase(readOutlook.pending, (state, { meta }) => {
        state.reading = true;
        state.trouble = null;
        state.view = JSON.stringify(meta.arg);
        state.changed = {};
        state.stock = false;
      })
      .addCase(readOutlook.fulfilled, (state, { payload, meta }) => {
        if (state.view !== JSON.stringify(meta.arg)) return;
        state.reading = false;
        state.at = payload.at;
        state.short = payload.short;
        state.rows = Object.fromEntries(
          payload.orders.map((values) => {
            const row = Object.fromEntries(outlookRowFields.map((f, i) => [f, values[i]])) as unknown as OutlookRow;
            return [row.id, row];
          }),
        );
      })
      .addCase(readOutlook.rejected, (state, { payload, meta }) => {
        if (state.view !== JSON.stringify(meta.arg)) return;
        state.reading = false;
        state.trouble = payload ?? networkError;
      }),
});

export const { changedSince } = outlook.actions;
export const outlookReducer = outlook.reducer;
