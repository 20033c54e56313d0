import { Redirect } from 'expo-router';
import { api, placesOf, startOf, troubleOf, words } from '../state/index.ts';
import { Failed } from '../ui/index.ts';

/** Everybody lands in the first place that is theirs. */
export default function Home() {
  const { data: me, error, refetch } = api.useMeQuery();
  if (error) {
    const trouble = troubleOf(error);
    return trouble.code === 'not-signed-in' ? (
      <Redirect href="/sign-in" />
    ) : (
      <Failed text={words(trouble)} onRetry={() => void refetch()} />
    );
  }
  if (!me) return null;
  const first = placesOf(me)[0];
  return <Redirect href={first ? startOf(me, first) : '/sign-in'} />;
}
