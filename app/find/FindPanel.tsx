import Overlay from '@rneui/themed/dist/Overlay';
import { useRouter } from 'expo-router';
import { useEffect, useState, type RefObject } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import type { FoundKind } from '@hand-relay/contract';
import { api, placesOf, troubleOf, useMe, words } from '../state/index.ts';
import {
  Button,
  Column,
  Failed,
  Field,
  Loading,
  Row,
  SurfaceContext,
  Text,
  useScans,
  useSurface,
  WIDE,
} from '../ui/index.ts';
import { addressOfHit } from './addressOf.ts';
import { FoundRow, type Shown } from './FoundRow.tsx';
import { openedBefore, rememberOpened } from './opened.ts';

/** Milliseconds without a key after which a text is looked for. */
const SETTLES_MS = 150;

interface PanelProps {
  text: string;
  /** Ends the collecting of what is typed before the field is there, and answers with it. */
  ahead: RefObject<() => string>;
  onClose: () => void;
}

/** One field for everything: what is typed or scanned is looked for in all numbers and names that the person may see. */
export function FindPanel({ text, ahead, onClose }: PanelProps) {
  return (
    <SurfaceContext.Provider value="paper">
      <Panel text={text} ahead={ahead} onClose={onClose} />
    </SurfaceContext.Provider>
  );
}

function Panel({ text: first, ahead, onClose }: PanelProps) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { width, height } = useWindowDimensions();
  const wide = width >= WIDE;
  const [text, setText] = useState(first);
  const [kind, setKind] = useState<FoundKind | null>(null);
  const found = useFound(text, kind);
  const [at, setAt] = useState(0);
  // What none of their places shows is read here and not opened.
  const rows = found.groups.flatMap((g) => g.rows).filter((r) => r.href !== null);
  const here = rows[Math.min(at, rows.length - 1)];
  const change = (next: string) => {
    setText(next);
    setAt(0);
  };
  useScans(change);
  const focused = () => {
    const typed = ahead.current();
    ahead.current = () => '';
    if (typed !== '') change(text + typed);
  };
  const opened = (row: Shown) => {
    rememberOpened(row);
    onClose();
  };
  const router = useRouter();
  const onKey = (event: { key: string; preventDefault(): void }) => {
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key];
    // Home and End move within the text until a row was chosen.
    if (to === undefined || (at === 0 && (event.key === 'Home' || event.key === 'End'))) return;
    event.preventDefault();
    setAt(Math.max(0, Math.min(rows.length - 1, to)));
  };
  const go = () => {
    if (!here) return;
    opened(here);
    router.navigate(here.href as never);
  };
  return (
    <Overlay
      isVisible
      onBackdropPress={onClose}
      onRequestClose={onClose}
      animationType="none"
      backdropStyle={{ backgroundColor: 'rgba(20,24,26,0.55)' }}
      overlayStyle={[
        { padding: 0, borderRadius: 4, backgroundColor: surface.ground, shadowOpacity: 0, elevation: 0 },
        wide
          ? { width: 720, position: 'absolute', top: 48, maxHeight: height - 96 }
          : { width, height, borderRadius: 0, position: 'absolute', top: 0, left: 0 },
      ]}
    >
      <View
        {...({ dataSet: { surface: surface.name }, onKeyDownCapture: onKey } as object)}
        role="dialog"
        aria-label={t('find.title')}
        style={{ maxHeight: wide ? height - 96 : height, flexShrink: 1 }}
      >
        <Row gap={8} style={{ padding: 12, flexWrap: 'nowrap', borderBottomWidth: 1, borderColor: surface.line }}>
          <View style={{ flex: 1 }}>
            <Field
              bare
              focus
              label={t('find.label')}
              placeholder={t('find.label')}
              value={text}
              onChange={change}
              onSubmit={go}
              onFocus={focused}
            />
          </View>
          <Button title={t('notice.close')} icon="close" iconOnly onPress={onClose} />
        </Row>
        <ScrollView
          keyboardShouldPersistTaps="always"
          style={{ flexShrink: 1 }}
          contentContainerStyle={{ paddingVertical: 8, gap: 8 }}
        >
          {kind && (
            <Row style={{ paddingHorizontal: 12 }}>
              <Button
                size="small"
                icon="close"
                title={t('find.only', { kind: t(`find.kind.${kind}`) })}
                onPress={() => setKind(null)}
              />
            </Row>
          )}
          {found.error ? (
            <View style={{ padding: 12 }}>
              <Failed text={words(troubleOf(found.error))} onRetry={found.again} />
            </View>
          ) : (
            <Groups found={found} here={here} onOpen={opened} onMore={setKind} />
          )}
          {found.waits && rows.length === 0 && (
            <View style={{ padding: 12 }}>
              <Loading rows={3} />
            </View>
          )}
          {text.trim() === '' && rows.length === 0 && (
            <Text colour="quiet" style={{ paddingHorizontal: 12, paddingVertical: 4 }}>
              {t('find.hint')}
            </Text>
          )}
        </ScrollView>
        <View role="status" style={{ paddingHorizontal: 12 }}>
          {found.nothing && (
            <Column gap={4} style={{ paddingBottom: 16 }}>
              <Text>{t('find.nothing', { text: text.trim() })}</Text>
              <Text colour="quiet">{t('find.nothingText')}</Text>
            </Column>
          )}
        </View>
      </View>
    </Overlay>
  );
}

interface Group {
  /** What was opened before has no kind of its own. */
  kind: FoundKind | 'opened';
  rows: Shown[];
  more: boolean;
}

interface Found {
  groups: Group[];
  waits: boolean;
  nothing: boolean;
  error: unknown;
  again: () => void;
}

/** What matches a text that has settled; with no text what was opened last on this device. */
function useFound(text: string, kind: FoundKind | null): Found {
  const me = useMe();
  const typed = text.trim();
  const [settled, setSettled] = useState(typed);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(typed), SETTLES_MS);
    return () => clearTimeout(timer);
  }, [typed]);
  const { data, isFetching, error, refetch } = api.useSearchQuery(
    { text: settled, ...(kind ? { kind } : {}) },
    { skip: settled === '' },
  );
  const again = () => void refetch();
  const places = placesOf(me);
  if (typed === '') {
    const rows = openedBefore(me.person.id, me.site.id);
    return {
      groups: rows.length > 0 ? [{ kind: 'opened', rows, more: false }] : [],
      waits: false,
      nothing: false,
      error: null,
      again,
    };
  }
  // What was found for the letters before stays until the next answer: nothing flickers while somebody types.
  const groups = (settled === '' ? [] : (data?.groups ?? [])).flatMap(({ kind: of, hits, more }): Group[] => {
    const own = { kind: of, person: me.person.id, site: me.site.id };
    return [{ kind: of, rows: hits.map((hit) => ({ ...hit, ...own, href: addressOfHit(of, hit, places) })), more }];
  });
  const waits = isFetching || settled !== typed;
  return { groups, waits, nothing: !waits && !error && groups.length === 0, error: waits ? null : error, again };
}

function Groups({
  found,
  here,
  onOpen,
  onMore,
}: {
  found: Found;
  here: Shown | undefined;
  onOpen: (row: Shown) => void;
  onMore: (kind: FoundKind) => void;
}) {
  const { t } = useTranslation();
  return found.groups.map(({ kind, rows, more }) => (
    <View key={kind} role="list" aria-label={t(`find.kind.${kind}`)}>
      <Text kind="label" colour="quiet" style={{ paddingHorizontal: 12, paddingVertical: 4 }}>
        {t(`find.kind.${kind}`)}
      </Text>
      {rows.map((row) => (
        <FoundRow key={`${row.kind} ${row.id} ${row.title}`} row={row} here={row === here} onOpen={() => onOpen(row)} />
      ))}
      {more && kind !== 'opened' && (
        <Row style={{ paddingHorizontal: 12, paddingTop: 4 }}>
          <Button size="small" title={t('find.more', { kind: t(`find.kind.${kind}`) })} onPress={() => onMore(kind)} />
        </Row>
      )}
    </View>
  ));
}
