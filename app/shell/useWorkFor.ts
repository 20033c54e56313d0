import { useRouter } from 'expo-router';
import { api, call, forSite, store, workFor } from '../state/index.ts';

type Me = NonNullable<ReturnType<ReturnType<typeof api.endpoints.me.select>>['data']>;

/** Takes this screen to another site's work, or back to one's own: everything is read again. */
export function useWorkFor(): (site: string | null) => Promise<void> {
  const router = useRouter();
  return async (site) => {
    const before = forSite();
    workFor(site);
    const me = await call({ name: 'me' });
    if ('error' in me) return workFor(before);
    store.dispatch(api.util.resetApiState());
    await store.dispatch(api.util.upsertQueryData('me', undefined, me.data as Me));
    router.replace('/desk');
  };
}
