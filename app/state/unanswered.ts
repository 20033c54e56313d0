import type { Trouble } from './api.ts';

/** What says nothing about the call itself: nobody answered, the server has a fault, or it is asked too much. */
export const unanswered = ({ code, status }: Trouble): boolean => code === 'network' || status >= 500 || status === 429;
