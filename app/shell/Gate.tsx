import { Redirect, usePathname } from 'expo-router';
import { useEffect, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { endpoints } from '@hand-relay/contract';
import { Failed } from '../ui/index.ts';
import { lookAfterRestore, outbox } from '../offline/index.ts';
import { api, goLive, hasLeft, syncTray, MeContext, remember, store, troubleOf, words } from '../state/index.ts';
import { browserLanguage, showLanguage, showUnits } from '../text/index.ts';
import { SessionEnded } from './SessionEnded.tsx';
import { Shell } from './Shell.tsx';

/**
 * Where the page was opened. Before the sign-in the router knows only the first part of a deep address; once
 * somebody is in, it knows better.
 */
let arrival: string | null = typeof location === 'undefined' ? null : location.pathname + location.search;

/** Lets in who is signed in, and keeps what they see live; others are shown the sign-in and come back after it. */
export function Gate({ children }: { children: ReactNode }) {
  const { data: me, error, refetch } = api.useMeQuery();
  const path = usePathname();
  const ended = error !== undefined && troubleOf(error).code === 'not-signed-in';
  // Whoever worked here a moment ago comes back to what they did.
  const locked = ended && me !== undefined && !hasLeft();
  const site = error ? undefined : me?.site.id;
  useEffect(() => {
    if (site === undefined) return undefined;
    arrival = null;
    return goLive(store);
  }, [site]);
  const person = me?.person.id;
  // Whoever may do something with many orders marks them, and has a tray.
  const marks = endpoints.tray.needs.some((right) => me?.person.rights.includes(right));
  useEffect(
    () => (site === undefined || person === undefined || !marks ? undefined : syncTray(store)),
    [site, person, marks],
  );
  useEffect(() => {
    if (person !== undefined) void outbox.start(person);
  }, [person]);
  const restored = locked ? undefined : me?.restored?.at;
  useEffect(() => {
    if (restored !== undefined && me) void lookAfterRestore(me);
    // Once a restore, and after the sign-in that it asks for.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [restored, person]);
  const [spoken, setSpoken] = useState(false);
  const language = me && (me.person.language ?? browserLanguage());
  useEffect(() => {
    if (!language) return;
    void showLanguage(language).then(() => setSpoken(true));
    // The sign-in of this device is read in the language of whoever was here last.
    remember('language', language);
  }, [language]);
  if (error && !locked) {
    const trouble = troubleOf(error);
    if (ended) return <Redirect href={{ pathname: '/sign-in', params: { to: arrival ?? path } }} />;
    return <Failed text={words(trouble)} onRetry={() => void refetch()} />;
  }
  // Not a word in one language, and the next in another. What is open stays as it is when the language changes later.
  if (!me || !spoken) return null;
  showUnits(me.settings.units);
  return (
    <MeContext.Provider value={me}>
      <View style={{ flex: 1, minHeight: 0, display: locked ? 'none' : 'flex' }}>
        <Shell>{children}</Shell>
      </View>
      {locked && <SessionEnded me={me} />}
    </MeContext.Provider>
  );
}
