import { createSlice, nanoid } from '@reduxjs/toolkit';
import type { Call } from './call.ts';
import { serverNow } from './serverTime.ts';

export interface Notice {
  id: string;
  kind: 'done' | 'caution' | 'refused';
  text: string;
  /** When, in milliseconds. */
  at: number;
  /** At the edge of the screen still; else only in the list. */
  shown: boolean;
  /** Address that a tap opens. */
  link?: string | undefined;
  /** The call by which a key takes it back; several where it was done in parts. */
  undo?: Call | Call[] | undefined;
  /** What it is about: a later one about the same takes its place. */
  about?: string | undefined;
}

/** How many are kept to be read again. */
const KEPT = 50;
/** How many are at the edge of the screen at once. */
const SHOWN = 3;

const subjectOf = ({ about, undo }: Pick<Notice, 'about' | 'undo'>): string | undefined =>
  about ?? (Array.isArray(undo) ? undefined : undo?.id);

/** What happened, told for a moment at the edge of the screen, and kept to be read again; the oldest first. */
const notices = createSlice({
  name: 'notices',
  initialState: [] as Notice[],
  reducers: {
    notify: {
      prepare: (notice: Omit<Notice, 'id' | 'at' | 'shown'>) => ({
        payload: { ...notice, about: subjectOf(notice), id: nanoid(), at: serverNow(), shown: true },
      }),
      reducer(state, { payload }: { payload: Notice }) {
        // What was said before of the same is not so any more: nobody shall take that back now.
        for (const before of state) {
          if (payload.about === undefined || before.about !== payload.about) continue;
          before.shown = false;
          delete before.undo;
        }
        state.push(payload);
        const shown = state.filter((n) => n.shown);
        for (const old of shown.slice(0, -SHOWN)) old.shown = false;
        if (state.length > KEPT) state.shift();
      },
    },
    /** Off the edge of the screen; it can still be read in the list. */
    close(state, { payload }: { payload: string }) {
      for (const n of state) if (n.id === payload) n.shown = false;
    },
    /** What it told of was taken back: that cannot be done twice. */
    undone(state, { payload }: { payload: string }) {
      for (const n of state)
        if (n.id === payload) {
          n.shown = false;
          delete n.undo;
        }
    },
  },
});

export const { notify, close, undone } = notices.actions;
export const noticesReducer = notices.reducer;
