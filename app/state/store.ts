import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { whenSignedOut } from './call.ts';
import { noticesReducer } from './notices.ts';
import { orderListReducer } from './orderList.ts';
import { outlookReducer } from './outlook.ts';
import { trayReducer } from './tray.ts';

export function makeStore() {
  return configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      notices: noticesReducer,
      orderList: orderListReducer,
      outlook: outlookReducer,
      tray: trayReducer,
    },
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  });
}

export const store = makeStore();
setupListeners(store.dispatch);
// Who it is is asked again: the gate leads to the sign-in.
whenSignedOut(() => void store.dispatch(api.util.invalidateTags(['me'])));

export type Store = ReturnType<typeof makeStore>;
export type State = ReturnType<Store['getState']>;
export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<State>();
