import { useTranslation } from 'react-i18next';
import type { BenchQueue } from '@hand-relay/contract';
import { useMe, useNow } from '../state/index.ts';
import { number, relative, timeOf } from '../text/index.ts';
import { Card, LinkBox, Row, Shape, Signal, Text, useSurface } from '../ui/index.ts';

/** A cart that waits to be packed, with the orders in its places. */
export function WaitingCart({ run, onOpen }: { run: BenchQueue['runs'][number]; onOpen: (order: string) => void }) {
  const { t } = useTranslation();
  const me = useMe();
  const now = useNow();
  const surface = useSurface();
  return (
    <Card gap={10}>
      <Row gap={16} style={{ justifyContent: 'space-between' }}>
        <Row gap={16} style={{ flexShrink: 1 }}>
          <Text kind="title">{run.callSign}</Text>
          <Text colour="quiet" style={{ flexShrink: 1 }}>
            {[run.cart, run.lane, run.picker && t('bench.picker', { name: run.picker })].filter(Boolean).join(' · ')}
          </Text>
        </Row>
        <Text colour="quiet">
          {run.leavesAt ? `${timeOf(run.leavesAt, me.site.timeZone, now)}, ${relative(run.leavesAt, now)}` : ''}
        </Text>
      </Row>
      {run.urgent && <Signal kind="caution" size="body" text={t('bench.urgent')} />}
      {run.notes.map((note) => (
        <Signal key={note} kind="caution" size="body" text={`${t('bench.pickerNote')}: ${note}`} />
      ))}
      <Row gap={8} style={{ alignItems: 'stretch' }}>
        {run.orders.map((o) => {
          const packed = o.packed >= o.units;
          return (
            <LinkBox
              key={o.id}
              href={`/bench/orders/${o.id}`}
              label={`${o.number}, ${t('bench.place', { number: o.position })}`}
              onOpen={() => onOpen(o.id)}
              style={{
                flexGrow: 1,
                flexBasis: 190,
                maxWidth: 320,
                minHeight: 76,
                padding: 10,
                borderWidth: 1,
                borderColor: packed ? surface.line : surface.quiet,
                borderRadius: 4,
                backgroundColor: surface.ground,
              }}
            >
              <Row gap={8} style={{ flexWrap: 'nowrap', justifyContent: 'space-between' }}>
                <Text kind="heading">{o.position}</Text>
                <Text kind="strong">{o.number}</Text>
              </Row>
              <Text kind="small" colour="quiet" lines={1}>
                {o.customer}
              </Text>
              <Row gap={6}>
                {packed && <Shape kind="done" size={12} />}
                <Text kind="small">{t('bench.packedOf', { packed: number(o.packed), units: number(o.units) })}</Text>
              </Row>
            </LinkBox>
          );
        })}
      </Row>
    </Card>
  );
}
