import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, useMay } from '../state/index.ts';
import { Shape, Text, useSurface } from '../ui/index.ts';
import { ExceptionCard } from './ExceptionCard.tsx';
import { SettledToday } from './SettledToday.tsx';

/** Cards beside the track; the list has them all. */
const MOST = 12;
const WIDTH = 300;

/** What went wrong, beside the hall at a glance: a card each, the newest first, each until somebody deals with it. */
export function ExceptionsRail({ wide }: { wide: boolean }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const may = useMay('orders.see');
  const { data } = api.useExceptionsQuery(undefined, { skip: !may });
  const open = (data?.exceptions ?? []).filter((e) => !e.settled);
  const settled = (data?.exceptions ?? []).filter((e) => e.settled);
  if (open.length + (wide ? settled.length : 0) === 0) return null;
  const head = (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44 }}>
      <Shape kind={open.length > 0 ? 'caution' : 'done'} size={16} />
      <Text kind="strong">{t('exceptions.rail', { count: open.length })}</Text>
      <View style={{ flex: 1 }} />
      <Text kind="small" style={{ textDecorationLine: 'underline' }}>
        {t('exceptions.seeAll')}
      </Text>
    </View>
  );
  if (!wide)
    return (
      <Link
        href="/desk/exceptions"
        style={{
          borderWidth: 1,
          borderLeftWidth: 4,
          borderColor: surface.line,
          borderLeftColor: surface.caution,
          borderRadius: 4,
          paddingLeft: 12,
          paddingRight: 12,
        }}
      >
        {head}
      </Link>
    );
  return (
    <View role="region" aria-label={t('exceptions.heading')} style={{ width: WIDTH, gap: 8 }}>
      <Link href="/desk/exceptions">{head}</Link>
      {open.slice(0, MOST).map((e) => (
        <ExceptionCard key={e.id} exception={e} />
      ))}
      <SettledToday settled={settled} />
    </View>
  );
}
