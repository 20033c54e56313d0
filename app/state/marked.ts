import { createSlice } from '@reduxjs/toolkit';

/** Orders marked in the list; they stay marked while one of them is looked at. */
const marked = createSlice({
  name: 'marked',
  initialState: [] as string[],
  reducers: {
    toggle: (state, { payload }: { payload: string }) =>
      state.includes(payload) ? state.filter((id) => id !== payload) : [...state, payload],
    setMarked: (_state, { payload }: { payload: string[] }) => payload,
  },
});

export const { toggle, setMarked } = marked.actions;
export const markedReducer = marked.reducer;
