import { useTranslation } from 'react-i18next';
import type { BenchOrder } from '@hand-relay/contract';
import type { PackInput } from '@hand-relay/core/handling/packing';
import { Button, Card, Signal, Text } from '../ui/index.ts';

/** Where closed cartons of an order go; where the site wants it, what stands there is confirmed by a scan of the lane. */
export function ToLane({ order, onInput }: { order: BenchOrder; onInput: (input: PackInput) => void }) {
  const { t } = useTranslation();
  const { toLane } = order.bench;
  // What stands on a pallet goes where the pallet goes.
  const closed = order.cartons.filter((c) => c.state === 'closed' && c.pallet === null);
  const lane = toLane?.lane ?? order.lane;
  if (closed.length === 0 || !lane) return null;
  const there = closed.every((c) => c.inLane !== null);
  const numbers = (toLane?.cartons ?? closed).map((c) => String(c.number));
  return (
    <Card gap={8}>
      {there ? (
        <Signal kind="done" text={t('bench.inLane', { lane })} size="strong" />
      ) : (
        <Text colour="quiet">{t('bench.bringTo', { count: numbers.length, numbers: numbers.join(', ') })}</Text>
      )}
      <Text kind="code">{lane}</Text>
      {toLane && (
        <Button
          // What is in the open carton comes first.
          kind={order.bench.carton ? 'plain' : 'act'}
          size="floor"
          title={t('bench.isInLane', { lane })}
          onPress={() => onInput({ kind: 'scan', text: lane })}
        />
      )}
    </Card>
  );
}
