import { useEffect, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { api, serverNow, store, useMe, useNow } from '../state/index.ts';
import { timeOf } from '../text/index.ts';
import { Button, Sheet, Signal } from '../ui/index.ts';
import { Bar } from './Bar.tsx';
import { SignInAgain } from './SignInAgain.tsx';

/** How long before its end a session is announced: time for a stop or two, and for finding a quiet moment. */
const ANNOUNCED_MS = 15 * 60_000;
/** The longest that a browser's timer takes. */
const LONGEST_MS = 2 ** 31 - 1;

/** Announces the end of the session, and lets whoever works here stay signed in without leaving the page. */
export function SessionEnds() {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const [open, setOpen] = useState(false);
  const ends = Date.parse(me.until);
  useEffect(() => {
    // An answer that an earlier version left on the device does not say when.
    if (!Number.isFinite(ends)) return undefined;
    const wait = Math.min(LONGEST_MS, Math.max(0, ends - serverNow()) + 1000);
    const timer = setTimeout(() => void store.dispatch(api.util.invalidateTags(['me'])), wait);
    return () => clearTimeout(timer);
  }, [ends]);
  const left = ends - now;
  if (!(left > 0 && left <= ANNOUNCED_MS)) return null;
  return (
    <>
      <Bar action={<Button size="small" title={t('signIn.stay')} onPress={() => setOpen(true)} />}>
        <Signal
          kind="caution"
          size="body"
          text={t('signIn.endsAt', { time: timeOf(me.until, me.site.timeZone, now) })}
        />
      </Bar>
      {open && (
        <Sheet
          title={t('signIn.stayTitle', { name: me.person.name })}
          onClose={() => setOpen(false)}
          keys={<Button title={t('notice.close')} onPress={() => setOpen(false)} />}
        >
          <SignInAgain me={me} onDone={() => setOpen(false)} other={null} />
        </Sheet>
      )}
    </>
  );
}
