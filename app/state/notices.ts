import { createSlice, nanoid } from '@reduxjs/toolkit';
import type { Call } from './call.ts';

export interface Notice {
  id: string;
  kind: 'done' | 'caution' | 'refused';
  text: string;
  /** Address that a tap opens. */
  link?: string | undefined;
  /** The call by which a key takes it back. */
  undo?: Call | undefined;
}

/** What happened, told for a moment at the edge of the screen. */
const notices = createSlice({
  name: 'notices',
  initialState: [] as Notice[],
  reducers: {
    tell: {
      prepare: (notice: Omit<Notice, 'id'>) => ({ payload: { ...notice, id: nanoid() } }),
      reducer(state, { payload }: { payload: Notice }) {
        state.push(payload);
        if (state.length > 4) state.shift();
      },
    },
    close: (state, { payload }: { payload: string }) => state.filter((n) => n.id !== payload),
  },
});

export const { tell, close } = notices.actions;
export const noticesReducer = notices.reducer;
