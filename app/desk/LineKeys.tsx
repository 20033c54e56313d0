import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { OrderDetail } from '@hand-relay/contract';
import { useMay } from '../state/index.ts';
import { Button, Row, Text } from '../ui/index.ts';
import { CancelSheet } from './CancelSheet.tsx';
import { useUnrelease } from './useUnrelease.ts';

/** Shows and hides what can be done to a line. */
export function LineMore({ line, shown, onPress }: { line: number; shown: boolean; onPress: () => void }) {
  const { t } = useTranslation();
  const [mayRelease, mayCancel] = [useMay('orders.release'), useMay('orders.cancel')];
  if (!mayRelease && !mayCancel) return null;
  return (
    <Button
      size="small"
      icon="dots-horizontal"
      iconOnly
      pressed={shown}
      title={t('order.lineMore', { line })}
      onPress={onPress}
    />
  );
}

/** What can be done to one line: take it back, cancel what is open of it. */
export function LineKeys({ order, line }: { order: OrderDetail; line: OrderDetail['lines'][number] }) {
  const { t } = useTranslation();
  const mayRelease = useMay('orders.release');
  const mayCancel = useMay('orders.cancel');
  const back = useUnrelease();
  const [cancelling, setCancelling] = useState(false);
  const open = line.asked - line.cancelled - line.released;
  const takes = mayRelease && line.waits > 0;
  const cancels = mayCancel && open > 0;
  return (
    <Row gap={6} style={{ paddingLeft: 56, justifyContent: 'flex-end' }}>
      {!takes && !cancels && <Text colour="quiet">{t('order.lineNothing')}</Text>}
      {takes && (
        <Button
          size="small"
          title={t('order.takeBackLine')}
          busy={back.isLoading}
          onPress={() => back.go([{ line: line.id }])}
        />
      )}
      {cancels && <Button size="small" title={t('order.cancelLine')} onPress={() => setCancelling(true)} />}
      {cancelling && (
        <CancelSheet order={order.id} what="rest" units={open} lines={[line.id]} onClose={() => setCancelling(false)} />
      )}
    </Row>
  );
}
