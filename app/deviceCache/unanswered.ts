/** What says nothing about a call itself: nobody answered, the server has a fault, or it is asked too much. */
export const unanswered = ({ code, status }: { code: string; status: number }): boolean =>
  code === 'network' || status >= 500 || status === 429;
