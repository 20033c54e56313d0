import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { api, useAppSelector, useMay, useMe, useOpenExceptions } from '../state/index.ts';
import { Button, Row } from '../ui/index.ts';

/** The Desk's own places: orders, items that fall short, the tray, what was picked too much, waves, intake. */
export function DeskTabs({
  at,
}: {
  at: 'orders' | 'exceptions' | 'items' | 'tray' | 'surplus' | 'counts' | 'quick' | 'loads' | 'waves' | 'intake';
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const held = useAppSelector((s) => s.tray.orders.length);
  const { data: tasks } = api.useDeskTasksQuery();
  const owed = tasks?.tasks.length ?? 0;
  const maySettle = useMay('runs.arrange');
  const { data: counts } = api.useCountsQuery(undefined, { skip: !maySettle });
  const toCount = counts?.counts.length ?? 0;
  const exceptions = useOpenExceptions();
  const mayTake = useMay('orders.import');
  const me = useMe();
  const [mayRelease, mayShip] = [useMay('orders.release'), useMay('shipments.confirm')];
  // Where goods are packed, a bench stands between the pick and the shipment.
  const ships = me.settings.stages !== 'pick-pack-ship' && mayRelease && mayShip;
  return (
    <Row gap={4}>
      <Button title={t('nav.orders')} size="small" pressed={at === 'orders'} onPress={() => router.navigate('/desk')} />
      <Button
        title={t('nav.exceptions', { count: exceptions })}
        size="small"
        pressed={at === 'exceptions'}
        onPress={() => router.navigate('/desk/exceptions')}
      />
      <Button
        title={t('nav.items')}
        size="small"
        pressed={at === 'items'}
        onPress={() => router.navigate('/desk/items')}
      />
      <Button
        title={held > 0 ? t('nav.trayWith', { count: held }) : t('nav.tray')}
        size="small"
        pressed={at === 'tray'}
        onPress={() => router.navigate('/desk/tray')}
      />
      {(owed > 0 || at === 'surplus') && (
        <Button
          title={t('nav.surplus', { count: owed })}
          size="small"
          pressed={at === 'surplus'}
          onPress={() => router.navigate('/desk/surplus')}
        />
      )}
      {maySettle && (toCount > 0 || at === 'counts') && (
        <Button
          title={t('nav.counts', { count: toCount })}
          size="small"
          pressed={at === 'counts'}
          onPress={() => router.navigate('/desk/counts')}
        />
      )}
      {ships && (
        <Button
          title={t('nav.quick')}
          size="small"
          pressed={at === 'quick'}
          onPress={() => router.navigate('/desk/quick')}
        />
      )}
      <Button
        title={t('nav.loads')}
        size="small"
        pressed={at === 'loads'}
        onPress={() => router.navigate('/desk/loads')}
      />
      <Button title={t('nav.waves')} size="small" pressed={at === 'waves'} onPress={() => router.navigate('/waves')} />
      {mayTake && (
        <Button
          title={t('nav.intake')}
          size="small"
          pressed={at === 'intake'}
          onPress={() => router.navigate('/desk/intake')}
        />
      )}
    </Row>
  );
}
