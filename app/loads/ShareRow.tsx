import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Link } from 'expo-router';
import type { LoadShare } from '@hand-relay/contract';
import { batonOf } from '../desk/index.ts';
import { useMe, useNow } from '../state/index.ts';
import { clock, dayName, mass } from '../text/index.ts';
import { Baton, Signal, Text, useSurface } from '../ui/index.ts';

/** An order of a load or for one, with what it brings; the way to the order, and the keys beside it. */
export function ShareRow({
  share,
  inside = false,
  children,
}: {
  share: LoadShare;
  /** It is in the load: how far it is counts, not whether it fits. */
  inside?: boolean;
  children?: React.ReactNode;
}) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  const leaves = share.leavesAt ? clock(share.leavesAt, me.site.timeZone) : '';
  const amounts = { ...share, asked: share.units, shipped: 0 };
  const days = t('unit.days', { count: Math.abs(share.early) });
  return (
    <View
      role="listitem"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        minHeight: 52,
        paddingVertical: 6,
        borderBottomWidth: 1,
        borderColor: surface.line,
      }}
    >
      <View style={{ flex: 1, minWidth: 0, gap: 2 }}>
        <Link href={`/desk/orders/${share.id}`}>
          <Text lines={1}>
            <Text kind="strong">{share.number}</Text> {share.customer}, {share.city}
          </Text>
        </Link>
        <Text kind="small" colour="quiet" lines={2}>
          {[
            `${dayName(share.due, me.site.timeZone, now)} ${leaves}`.trim(),
            mass(share.weightG),
            `${(share.volumeCm3 / 1_000_000).toFixed(2)} m³`,
            t('loads.pallets', { pallets: share.pallets.toFixed(2) }),
            share.released === 0 ? t('loads.notReleased') : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
        {share.early !== 0 && (
          <Signal kind="caution" text={t(share.early > 0 ? 'loads.early' : 'loads.late', { days })} size="small" />
        )}
        {!inside && !share.fits && <Signal kind="caution" text={t('loads.noFit')} size="small" />}
      </View>
      {inside && <Baton {...batonOf(amounts, share.leavesAt, now)} />}
      {children}
    </View>
  );
}
