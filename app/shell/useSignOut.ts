import { useRouter } from 'expo-router';
import { forgetAnswers } from '../deviceCache/index.ts';
import { outbox } from '../offline/index.ts';
import { api, leave, store, workFor } from '../state/index.ts';

/** Signs out on this device, at once, and at the server as soon as it can be reached; leads to the sign-in. */
export function useSignOut(): () => Promise<void> {
  const router = useRouter();
  return async () => {
    workFor(null);
    outbox.stop();
    await leave();
    await forgetAnswers();
    store.dispatch(api.util.resetApiState());
    router.replace('/sign-in');
  };
}
