import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LoadDetail } from '@hand-relay/contract';
import { ListExport } from '../desk/index.ts';
import { useMe } from '../state/index.ts';
import { clock, mass } from '../text/index.ts';
import { Column, Row, Text, useSurface } from '../ui/index.ts';

/** What was confirmed on a load, each the way to its shipment, with weights and times. */
export function LoadLeft({ load }: { load: LoadDetail }) {
  const { t } = useTranslation();
  const me = useMe();
  const surface = useSurface();
  if (load.left.length === 0) return null;
  const sum = (of: 'cartons' | 'weightG') => load.left.reduce((n, s) => n + s[of], 0);
  return (
    <Column gap={4}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('loads.left')}
        </Text>
        <ListExport
          name={`load-${load.number}-left`}
          rows={() =>
            load.left.map((s) => ({
              shipment: s.number,
              order: s.orderNumber,
              customer: s.customer,
              city: s.city,
              units: s.units,
              cartons: s.cartons,
              weight_g: s.weightG,
              confirmed_at: s.confirmedAt,
              tracking: s.tracking ?? '',
            }))
          }
        />
      </Row>
      <Text>
        {[
          t('unit.shipments', { count: load.left.length }),
          sum('cartons') > 0 && t('unit.cartons', { count: sum('cartons') }),
          mass(sum('weightG')),
        ]
          .filter(Boolean)
          .join(' · ')}
      </Text>
      <View role="list" aria-label={t('loads.left')}>
        {load.left.map((s) => (
          <View key={s.shipment} role="listitem" style={{ borderBottomWidth: 1, borderColor: surface.line }}>
            <View style={{ minHeight: 48, paddingVertical: 6, flexDirection: 'row', alignItems: 'center', gap: 12 }}>
              <View style={{ flex: 1, minWidth: 0 }}>
                <Link href={`/dock/${s.shipment}?left=1`}>
                  <Text lines={1}>
                    <Text kind="strong">{s.orderNumber}</Text> {s.customer}, {s.city}
                  </Text>
                </Link>
                <Text kind="small" colour="quiet" lines={1}>
                  {[
                    t('unit.units', { count: s.units }),
                    s.cartons > 0 && t('unit.cartons', { count: s.cartons }),
                    mass(s.weightG),
                    s.tracking,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </Text>
              </View>
              <Text kind="number">{clock(s.confirmedAt, me.site.timeZone)}</Text>
            </View>
          </View>
        ))}
      </View>
    </Column>
  );
}
