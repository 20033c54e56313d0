import { Link } from 'expo-router';
import { useEffect, useRef } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { FoundKind, SearchHit } from '@hand-relay/contract';
import { useMe, useNow } from '../state/index.ts';
import { dayName } from '../text/index.ts';
import { Text, useSurface } from '../ui/index.ts';

/** A hit as it is shown and opened, and for whom: another person on this device has opened other things. */
export interface Shown extends SearchHit {
  kind: FoundKind;
  /** Null where the person has no place that shows it. */
  href: string | null;
  person: string;
  site: string;
}

/** Kinds whose title is a number that people compare by eye. */
const numbers = new Set<FoundKind>(['order', 'shipment', 'carton', 'run', 'lot', 'serial', 'bin', 'place', 'cart']);

/** One thing that was found: a link, so that it can be opened in another tab too. */
export function FoundRow({ row, here, onOpen }: { row: Shown; here: boolean; onOpen: () => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const me = useMe();
  const now = useNow();
  const view = useRef<View>(null);
  useEffect(() => {
    if (here) (view.current as unknown as HTMLElement | null)?.scrollIntoView?.({ block: 'nearest' });
  }, [here]);
  const { kind, href, title, about, state, day } = row;
  const side = [
    state && t(`find.state.${state}`, { defaultValue: state }),
    day && t(`find.day.${kind}`, { day: dayName(day, me.site.timeZone, now), defaultValue: '{{day}}' }),
  ].filter(Boolean);
  const content = (
    <View
      style={{
        minHeight: 44,
        width: '100%',
        flexDirection: 'row',
        alignItems: 'center',
        alignContent: 'center',
        flexWrap: 'wrap',
        columnGap: 12,
        paddingVertical: 6,
        paddingRight: 12,
        paddingLeft: 8,
        borderLeftWidth: 4,
        borderColor: here ? surface.ink : 'transparent',
        backgroundColor: here ? surface.raised : undefined,
      }}
    >
      <Text kind={numbers.has(kind) ? 'mono' : 'strong'}>
        {kind === 'wave' || kind === 'load' ? t(`find.named.${kind}`, { number: title }) : title}
      </Text>
      <Text colour="quiet" lines={1} style={{ flexGrow: 1, flexShrink: 1, flexBasis: 160 }}>
        {about.join(' · ')}
      </Text>
      <Text kind="small" colour="quiet">
        {side.join(' · ')}
      </Text>
    </View>
  );
  return (
    <View ref={view} role="listitem">
      {href === null ? (
        content
      ) : (
        <Link href={href} onPress={onOpen} style={{ textDecorationLine: 'none' }}>
          {content}
        </Link>
      )}
    </View>
  );
}
