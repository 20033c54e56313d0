import { Link, useGlobalSearchParams, usePathname, useRouter } from 'expo-router';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { useWindowDimensions, View } from 'react-native';
import type { Found, WorkPlace } from '@hand-relay/contract';
import {
  api,
  forSite,
  idle,
  placesOf,
  startOf,
  useMe,
  notify,
  useOpenExceptions,
  useAppDispatch,
} from '../state/index.ts';
import {
  charcoal,
  Column,
  hivis,
  Button,
  LinkBox,
  Row,
  Sheet,
  Signal,
  SurfaceContext,
  Text,
  useNarrow,
  useScans,
  useShortcuts,
  useSurface,
  WIDE,
  type IconName,
  Icon,
} from '../ui/index.ts';
import { OutboxLine } from '../offline/index.ts';
import { AccountChanges } from './AccountChanges.tsx';
import { BackupAlarm } from './BackupAlarm.tsx';
import { Bar } from './Bar.tsx';
import { inRun } from './inRun.ts';
import { NewVersion } from './NewVersion.tsx';
import { Notices } from './Notices.tsx';
import { AllNotices, Person } from './Person.tsx';
import { Restored } from './Restored.tsx';
import { SessionEnds } from './SessionEnds.tsx';
import { collectKeys } from './typeAhead.ts';
import { useWorkFor } from './useWorkFor.ts';
import { WrongClock } from './WrongClock.tsx';
import { place } from './place.tsx';

const find = place(() => import('../find/index.ts'));
const FindPanel = find.view('FindPanel');

const icons: Record<WorkPlace, IconName> = {
  desk: 'clipboard-text-outline',
  floor: 'walk',
  bench: 'package-variant-closed',
  dock: 'truck-outline',
  setup: 'cog-outline',
};

/** The frame around every screen: places at the edge, notices, and the two things that work everywhere: `?` and any scan. */
export function Shell({ children }: { children: ReactNode }) {
  const me = useMe();
  const { width } = useWindowDimensions();
  const wide = width >= WIDE;
  const path = usePathname();
  const allowed = placesOf(me);
  const [help, setHelp] = useState(false);
  /** What is looked for, while somebody looks. */
  const [looked, setLooked] = useState<string | null>(null);
  const ahead = useRef<() => string>(() => '');
  const look = () => {
    if (looked !== null) return;
    ahead.current();
    ahead.current = collectKeys();
    setLooked('');
  };
  const endLook = () => {
    ahead.current();
    setLooked(null);
  };
  const openWhatIsScanned = useOpener(allowed, setLooked);
  useScans(openWhatIsScanned, { behind: true });
  // Whoever presses the key types on at once.
  useEffect(() => void idle().then(find.prepare), []);
  useShortcuts({ '?': () => setHelp(true), '/': look });
  return (
    <View style={{ flex: 1, minHeight: 0, flexDirection: wide ? 'row' : 'column-reverse', backgroundColor: charcoal }}>
      <SurfaceContext.Provider value="floor">
        {wide || allowed.length > 1 ? (
          <Places allowed={allowed} wide={wide} onHelp={() => setHelp(true)} onFind={() => setLooked('')} />
        ) : null}
      </SurfaceContext.Provider>
      <View style={{ flex: 1, minHeight: 0, minWidth: 0 }}>
        {!wide && !inRun(path) && <PhoneHead onFind={() => setLooked('')} />}
        {forSite() !== null && <ForSite />}
        <SessionEnds />
        <WrongClock />
        <Restored />
        <NewVersion />
        <AccountChanges />
        <BackupAlarm />
        <OutboxLine />
        <Notices wide={false} />
        {children}
      </View>
      <Notices wide />
      {help && <Help onClose={() => setHelp(false)} />}
      {looked !== null && <FindPanel text={looked} ahead={ahead} onClose={endLook} />}
    </View>
  );
}

/** Says that this screen works for another site, and leads back. */
function ForSite() {
  const { t } = useTranslation();
  const me = useMe();
  const go = useWorkFor();
  return (
    <Bar action={<Button size="small" title={t('nav.ownSite')} onPress={() => void go(null)} />}>
      <Signal kind="caution" size="body" text={t('nav.forSite', { site: me.site.name })} />
    </Bar>
  );
}

/** On a phone the badge of who works here is at the top: who hands the device on signs out there. */
function PhoneHead({ onFind }: { onFind: () => void }) {
  const { t } = useTranslation();
  const narrow = useNarrow();
  return (
    <SurfaceContext.Provider value="floor">
      <View
        {...({ dataSet: { surface: 'floor' } } as object)}
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          justifyContent: 'space-between',
          paddingLeft: 12,
          paddingRight: 4,
          minHeight: 44,
          backgroundColor: charcoal,
        }}
      >
        <Mark />
        <Row gap={4} style={{ flexWrap: 'nowrap' }}>
          <Button title={t('find.title')} icon="magnify" iconOnly onPress={onFind} />
          <AllNotices />
          <Person icon={narrow} />
        </Row>
      </View>
    </SurfaceContext.Provider>
  );
}

function Mark() {
  const { t } = useTranslation();
  return (
    <Link href="/" style={{ textDecorationLine: 'none' }}>
      <Text kind="label">{t('app.name')}</Text>
    </Link>
  );
}

/** Pallets are built at the dock, and at benches. */
const palletsAt = (allowed: WorkPlace[]): WorkPlace => (allowed.includes('dock') ? 'dock' : 'bench');

function Places({
  allowed,
  wide,
  onHelp,
  onFind,
}: {
  allowed: WorkPlace[];
  wide: boolean;
  onHelp: () => void;
  onFind: () => void;
}) {
  const { t } = useTranslation();
  const surface = useSurface();
  const me = useMe();
  const path = usePathname();
  const exceptions = useOpenExceptions();
  const first = path.split('/')[1];
  const at = first === 'waves' ? 'desk' : first === 'pallets' ? palletsAt(allowed) : first;
  const router = useRouter();
  const edge = wide
    ? { width: 84, borderRightWidth: 1, paddingVertical: 8, justifyContent: 'space-between' as const }
    : { borderTopWidth: 1 };
  return (
    <View
      {...({ dataSet: { surface: 'floor' } } as object)}
      role="navigation"
      aria-label={t('nav.label')}
      style={[{ backgroundColor: surface.ground, borderColor: surface.line }, edge]}
    >
      <View style={{ flexDirection: wide ? 'column' : 'row', gap: wide ? 4 : 0 }}>
        {allowed.map((place) => {
          const here = place === at;
          const colour = here ? surface.ink : surface.quiet;
          return (
            <LinkBox
              key={place}
              href={startOf(me, place)}
              label={
                place === 'desk' && exceptions > 0
                  ? `${t('place.desk')}, ${t('nav.exceptions')} ${exceptions}`
                  : t(`place.${place}`)
              }
              here={here}
              onOpen={() => router.navigate(startOf(me, place))}
              style={{
                flex: wide ? undefined : 1,
                minHeight: 60,
                alignItems: 'center',
                justifyContent: 'center',
                gap: 2,
                borderColor: here ? hivis : 'transparent',
                ...(wide ? { borderLeftWidth: 4, paddingRight: 4 } : { borderTopWidth: 4, paddingBottom: 4 }),
              }}
            >
              <View>
                <Icon name={icons[place]} size={24} color={colour} />
                {place === 'desk' && exceptions > 0 && <Waiting count={exceptions} />}
              </View>
              <Text kind="label" style={{ color: colour }}>
                {t(`place.${place}`)}
              </Text>
            </LinkBox>
          );
        })}
      </View>
      {wide && (
        <View style={{ alignItems: 'center', gap: 8 }}>
          <Button title={t('find.title')} icon="magnify" iconOnly onPress={onFind} />
          <AllNotices />
          <Button title={t('nav.keys')} icon="keyboard-outline" iconOnly onPress={onHelp} />
          <Person icon />
        </View>
      )}
    </View>
  );
}

/** How many things wait for somebody, on the icon of their place. */
function Waiting({ count }: { count: number }) {
  const surface = useSurface();
  return (
    <View
      style={{
        position: 'absolute',
        left: 16,
        top: -6,
        minWidth: 20,
        height: 20,
        paddingHorizontal: 4,
        borderRadius: 4,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: surface.caution,
      }}
    >
      <Text kind="small" style={{ color: charcoal, lineHeight: 18 }}>
        {count > 99 ? '99+' : String(count)}
      </Text>
    </View>
  );
}

function Help({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  const keys = [
    ['/', 'find'],
    ['f', 'filter'],
    ['j', 'down'],
    ['k', 'up'],
    ['space', 'mark'],
    ['enter', 'open'],
    ['c', 'change'],
    ['r', 'release'],
    ['n', 'enter'],
    ['u', 'refresh'],
    ['F', 'filters'],
    ['esc', 'back'],
    ['?', 'help'],
  ] as const;
  return (
    <SurfaceContext.Provider value="paper">
      <Sheet title={t('keys.title')} onClose={onClose} keys={<Button title={t('notice.close')} onPress={onClose} />}>
        <Column gap={6}>
          {keys.map(([key, what]) => (
            <Row key={key} gap={16}>
              <Text kind="mono" style={{ width: 64 }}>
                {key}
              </Text>
              <Text>{t(`keys.${what}`)}</Text>
            </Row>
          ))}
        </Column>
        <Text colour="quiet">{t('keys.scan')}</Text>
      </Sheet>
    </SurfaceContext.Provider>
  );
}

/** Kinds of codes that open a screen by themselves. */
const OPENS: ReadonlySet<Found['kind']> = new Set(['order', 'carton', 'run', 'shipment', 'pallet', 'void']);

/** Opens what a code scanned outside a step names, in the first place the person may use for it. */
function useOpener(allowed: WorkPlace[], onLook: (text: string) => void): (code: string) => void {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [find] = api.useLazyFindQuery();
  const path = usePathname();
  const { id: _, ...listing } = useGlobalSearchParams<Record<string, string>>();
  const [search] = api.useLazySearchQuery();
  const open = async (code: string) => {
    const { data } = await find({ code });
    if (!data) return;
    const { kind, id, name, orders } = data;
    // Who sees the Desk looks closer at what has no screen of its own; who picks or packs hears what it is.
    if (allowed.includes('desk') && !OPENS.has(kind)) {
      const { data: hits } = await search({ text: code });
      if (hits && hits.groups.length > 0) return onLook(code);
    }
    if (kind === 'item' || kind === 'bin')
      return send(notify({ kind: 'done', text: t(kind === 'item' ? 'scan.isItem' : 'scan.isBin', { name }) }));
    if (kind === 'cart' || kind === 'place')
      return send(notify({ kind: 'refused', text: t(kind === 'cart' ? 'scan.isCart' : 'scan.isPlace', { name }) }));
    if (kind === 'pallet' && id) return router.navigate(`/pallets/${id}`);
    if (kind === 'void') return send(notify({ kind: 'refused', text: t('scan.void', { name }) }));
    if (kind === 'nothing' || !id) return send(notify({ kind: 'refused', text: t('scan.nothing', { code }) }));
    if (kind === 'run' && allowed.includes('floor')) return router.navigate(`/floor/runs/${id}`);
    if ((kind === 'carton' || kind === 'shipment') && allowed.includes('dock')) return router.navigate(`/dock/${id}`);
    const order = orders[0];
    if (order && allowed.includes('desk'))
      return router.navigate({
        pathname: `/desk/orders/${order}` as never,
        params: path.startsWith('/desk') ? listing : {},
      });
    if (order && allowed.includes('bench')) return router.navigate(`/bench/orders/${order}`);
    return send(notify({ kind: 'refused', text: t('scan.nothing', { code }) }));
  };
  return (code) => void open(code);
}
