import { Link } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { OrderDetail } from '@hand-relay/contract';
import { addressOf, useMay, useMe, useNow } from '../state/index.ts';
import { dayName, number } from '../text/index.ts';
import { Row, Text } from '../ui/index.ts';

interface Thing {
  key: string;
  title: string;
  href: string;
  /** A file, which opens beside the page. */
  file?: boolean;
}

/** What was split off, and the waves, runs, cartons and shipments that the order went into: a link to each. */
export function Made({ order }: { order: OrderDetail }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const maySeeDock = useMay('shipments.confirm');
  const file = (name: 'cartonLabel' | 'packingSlip', id: string) => ({ href: addressOf({ name, id }), file: true });
  const { splitOf, parts, load } = order;
  const things: Thing[] = [
    ...(splitOf
      ? [{ key: splitOf.id, title: t('order.splitOf', { number: splitOf.number }), href: `/desk/orders/${splitOf.id}` }]
      : []),
    ...parts.map((p) => ({
      key: p.id,
      title: t('order.part', { number: p.number, units: number(p.units), day: dayName(p.due, me.site.timeZone, now) }),
      href: `/desk/orders/${p.id}`,
    })),
    ...(load
      ? [{ key: load.id, title: t('order.load', { number: load.number }), href: `/desk/loads/${load.id}` }]
      : []),
    ...order.waves.map((w) => ({ key: w.id, title: t('order.wave', { number: w.number }), href: `/waves/${w.id}` })),
    ...order.runs.map((r) => ({
      key: r.id,
      title: `${t('order.run', { number: r.number })}${r.picker ? `, ${r.picker}` : ''}`,
      href: `/floor/runs/${r.id}`,
    })),
    ...order.cartons
      // Before it is closed a carton has no number, and no label.
      .filter((c) => c.sscc)
      .map((c) => ({
        key: c.id,
        title: `${t('order.carton', { number: c.number })} · ${t('order.label')}`,
        ...file('cartonLabel', c.id),
      })),
    ...order.shipments.map((s) => ({
      key: s.id,
      title: `${t('order.shipment', { number: s.number })}${s.tracking ? ` · ${s.tracking}` : ''}`,
      ...(maySeeDock ? { href: `/dock/${s.id}` } : file('packingSlip', s.id)),
    })),
  ];
  if (things.length === 0) return null;
  return (
    <Row gap={16}>
      {things.map(({ key, title, href, file: opens }) => (
        <Link key={key} href={href as never} {...(opens ? { target: '_blank' as const } : {})}>
          <View style={{ minHeight: 44, justifyContent: 'center' }}>
            <Text kind="strong" style={{ textDecorationLine: 'underline' }}>
              {title}
            </Text>
          </View>
        </Link>
      ))}
    </Row>
  );
}
