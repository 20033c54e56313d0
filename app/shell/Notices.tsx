import { usePathname, useRouter } from 'expo-router';
import { useEffect } from 'react';
import { useTranslation } from 'react-i18next';
import { Pressable, useWindowDimensions, View } from 'react-native';
import { afterTold } from '../offline/index.ts';
import {
  allStale,
  call,
  close,
  notify,
  undone,
  useAppSelector,
  useMe,
  useNow,
  useAppDispatch,
  words,
  type Call,
  type Notice,
} from '../state/index.ts';
import { ago, clock } from '../text/index.ts';
import { charcoal, Column, Button, Row, Sheet, Signal, SurfaceContext, Text, useSurface, WIDE } from '../ui/index.ts';

const STAYS_MS = 7000;
/** What can be taken back stays long enough for second thoughts. */
const UNDO_STAYS_MS = 20_000;

/**
 * What happened, for a moment, clear of every key: on a phone above the page, which moves down for it while the keys at
 * its foot stay where they are; on a wide screen at the foot's left, as keys are at its right.
 */
export function Notices({ wide }: { wide: boolean }) {
  const notices = useAppSelector((s) => s.notices).filter((n) => n.shown);
  if (useWindowDimensions().width >= WIDE !== wide) return null;
  return (
    <View
      pointerEvents="box-none"
      aria-live="polite"
      style={
        wide
          ? { position: 'absolute', left: 96, bottom: 12, gap: 8, alignItems: 'flex-start' }
          : { backgroundColor: charcoal, ...(notices.length > 0 ? { padding: 4, gap: 4 } : {}) }
      }
    >
      <SurfaceContext.Provider value="floor">
        {notices.map((n) => (
          <One key={n.id} notice={n} wide={wide} />
        ))}
      </SurfaceContext.Provider>
    </View>
  );
}

/** Takes back what a notice tells of. */
function useUndo(): (notice: Notice, undo: Call | Call[]) => Promise<void> {
  const send = useAppDispatch();
  const { t } = useTranslation();
  return async (notice, undo) => {
    let done: Awaited<ReturnType<typeof call>> = { data: undefined };
    for (const one of Array.isArray(undo) ? undo : [undo]) {
      done = await afterTold(one.id ?? '', () => call(one));
      if ('error' in done && done.error) break;
    }
    send(undone(notice.id));
    send(allStale());
    send(
      notify(
        'error' in done
          ? { kind: 'refused', text: words(done.error) }
          : { kind: 'done', text: t('notice.undone', { what: notice.text }) },
      ),
    );
  };
}

function One({ notice, wide }: { notice: Notice; wide: boolean }) {
  const surface = useSurface();
  const send = useAppDispatch();
  const router = useRouter();
  const { t } = useTranslation();
  const takeBack = useUndo();
  useEffect(() => {
    const timer = setTimeout(() => send(close(notice.id)), notice.undo ? UNDO_STAYS_MS : STAYS_MS);
    return () => clearTimeout(timer);
  }, [notice.id, notice.undo, send]);
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'space-between',
        gap: 8,
        ...(wide ? { maxWidth: 480 } : {}),
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
      <Row gap={0} style={{ flexWrap: 'nowrap' }}>
        {notice.undo && (
          <Button title={t('notice.undo')} size="small" onPress={() => void takeBack(notice, notice.undo!)} />
        )}
        <Button title={t('notice.close')} icon="close" iconOnly size="desk" onPress={() => send(close(notice.id))} />
      </Row>
    </View>
  );
}

/** All that was told since this tab was opened, the newest first. */
export function NoticeList({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  const router = useRouter();
  const path = usePathname();
  const me = useMe();
  const now = useNow();
  const takeBack = useUndo();
  const notices = useAppSelector((s) => s.notices);
  const open = (link: string) => {
    onClose();
    if (link !== path) router.navigate(link);
  };
  return (
    <SurfaceContext.Provider value="paper">
      <Sheet title={t('notice.all')} onClose={onClose} keys={<Button title={t('notice.close')} onPress={onClose} />}>
        {notices.length === 0 && <Text colour="quiet">{t('notice.none')}</Text>}
        {[...notices].reverse().map((n) => (
          <Row key={n.id} gap={12} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
            <Column gap={2} style={{ flexShrink: 1 }}>
              <Signal kind={n.kind} text={n.text} size="body" />
              <Text kind="small" colour="quiet">
                {`${clock(new Date(n.at).toISOString(), me.site.timeZone)}, ${ago(new Date(n.at).toISOString(), now)}`}
              </Text>
            </Column>
            <Row gap={4} style={{ flexWrap: 'nowrap' }}>
              {n.link && <Button size="small" title={t('notice.open')} onPress={() => open(n.link!)} />}
              {n.undo && <Button size="small" title={t('notice.undo')} onPress={() => void takeBack(n, n.undo!)} />}
            </Row>
          </Row>
        ))}
      </Sheet>
    </SurfaceContext.Provider>
  );
}
