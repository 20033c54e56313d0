import { createSlice } from '@reduxjs/toolkit';
import type { Tray } from '@hand-relay/contract';

const initialState: Tray = { orders: [], lines: {} };

const tray = createSlice({
  name: 'tray',
  initialState,
  reducers: {
    toggle(state, { payload }: { payload: string }) {
      if (state.orders.includes(payload)) state.orders = state.orders.filter((id) => id !== payload);
      else state.orders.push(payload);
    },
    fill: (_state, { payload }: { payload: { orders: string[]; lines?: Record<string, number> } }) => ({
      orders: payload.orders,
      lines: payload.lines ?? {},
    }),
    add(state, { payload }: { payload: string[] }) {
      const there = new Set(state.orders);
      state.orders.push(...payload.filter((id) => !there.has(id)));
    },
    /** Lines of an order get exactly so many units; the order joins the tray. */
    setLines(state, { payload }: { payload: { order: string; lines: Record<string, number> } }) {
      if (!state.orders.includes(payload.order)) state.orders.push(payload.order);
      Object.assign(state.lines, payload.lines);
    },
  },
});

export const { toggle, fill, add, setLines } = tray.actions;
export const trayReducer = tray.reducer;

/** The tray as a release asks for it. */
export function releaseOf({ orders, lines }: Tray, wave: string | null = null) {
  return { orders, lines: Object.entries(lines).map(([line, units]) => ({ line, units })), wave };
}
