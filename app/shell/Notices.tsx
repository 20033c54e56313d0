import { usePathname, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, useWindowDimensions, View } from 'react-native';
import { afterTold } from '../offline/index.ts';
import { api, call, close, tags, tell, useFrom, useSend, words, type Call, type Notice } from '../state/index.ts';
import { Key, Signal, SurfaceContext, useSurface, WIDE } from '../ui/index.ts';

const STAYS_MS = 7000;
/** What can be taken back stays long enough for second thoughts. */
const UNDO_STAYS_MS = 20_000;

/** What happened, for a moment: at the foot of the screen, or at its head where keys for the thumb are at the foot. */
export function Notices() {
  const notices = useFrom((s) => s.notices);
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const inAisle = usePathname().startsWith('/floor/');
  return (
    <View
      pointerEvents="box-none"
      aria-live="polite"
      style={{
        position: 'absolute',
        right: 12,
        ...(inAisle ? { top: 48 } : { bottom: wide ? 12 : 76 }),
        left: wide ? undefined : 12,
        gap: 8,
        alignItems: 'flex-end',
      }}
    >
      <SurfaceContext.Provider value="floor">
        {notices.map((n) => (
          <One key={n.id} notice={n} />
        ))}
      </SurfaceContext.Provider>
    </View>
  );
}

function One({ notice }: { notice: Notice }) {
  const surface = useSurface();
  const send = useSend();
  const router = useRouter();
  const { t } = useTranslation();
  const takeBack = async (undo: Call) => {
    const done = await afterTold(undo.id ?? '', () => call(undo));
    send(close(notice.id));
    send(api.util.invalidateTags([...tags]));
    send(
      tell('error' in done ? { kind: 'refused', text: words(done.error) } : { kind: 'done', text: t('notice.undone') }),
    );
  };
  useEffect(() => {
    const timer = setTimeout(() => send(close(notice.id)), notice.undo ? UNDO_STAYS_MS : STAYS_MS);
    return () => clearTimeout(timer);
  }, [notice.id, notice.undo, send]);
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        maxWidth: 480,
        paddingLeft: 16,
        paddingRight: 4,
        paddingVertical: 4,
        borderRadius: 4,
        borderWidth: 1,
        borderColor: surface.line,
        backgroundColor: surface.ground,
      }}
    >
      <Pressable
        {...(notice.link ? { role: 'link' as const } : {})}
        disabled={!notice.link}
        onPress={() => notice.link && router.navigate(notice.link)}
        style={{ flexShrink: 1 }}
      >
        <Signal kind={notice.kind} text={notice.text} size="body" />
      </Pressable>
      {notice.undo && <Key title={t('notice.undo')} size="small" onPress={() => void takeBack(notice.undo!)} />}
      <Key title={t('notice.close')} icon="close" iconOnly size="desk" onPress={() => send(close(notice.id))} />
    </View>
  );
}
