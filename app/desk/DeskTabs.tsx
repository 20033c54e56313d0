import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { useMay } from '../state/index.ts';
import { Key, Row } from '../ui/index.ts';

/** The Desk's own places: orders, waves, intake. */
export function DeskTabs({ at }: { at: 'orders' | 'waves' | 'intake' }) {
  const { t } = useTranslation();
  const router = useRouter();
  const mayTake = useMay('orders.import');
  return (
    <Row gap={4}>
      <Key title={t('nav.orders')} size="small" pressed={at === 'orders'} onPress={() => router.navigate('/desk')} />
      <Key title={t('nav.waves')} size="small" pressed={at === 'waves'} onPress={() => router.navigate('/waves')} />
      {mayTake && (
        <Key
          title={t('nav.intake')}
          size="small"
          pressed={at === 'intake'}
          onPress={() => router.navigate('/desk/intake')}
        />
      )}
    </Row>
  );
}
