import { useRouter } from 'expo-router';
import { api, store, workFor } from '../state/index.ts';

/** Takes the session to another site: everything on screen is of one site and is read again there. */
export function useSwitchSite(): (site: string) => Promise<boolean> {
  const router = useRouter();
  const [switchSite] = api.useSwitchSiteMutation();
  return async (site) => {
    workFor(null);
    const { data } = await switchSite({ site });
    if (!data) return false;
    store.dispatch(api.util.resetApiState());
    await store.dispatch(api.util.upsertQueryData('me', undefined, data));
    router.replace('/');
    return true;
  };
}
