import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import { api } from '../state/index.ts';
import { Column, Button, Row, Text } from '../ui/index.ts';

/** Trips that bring goods back, and bins that want counting: shown where there are any. */
export function OtherTrips() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data: backs } = api.usePutAwaysQuery();
  const { data: counts } = api.useCountsQuery();
  const asked = counts?.counts.filter((c) => c.state === 'asked').length ?? 0;
  if (!backs?.trips.length && asked === 0) return null;
  return (
    <Column gap={10}>
      <Text kind="heading" level={2}>
        {t('floor.besides')}
      </Text>
      <Row gap={8}>
        {backs?.trips.map((trip) => (
          <Button
            key={trip.run}
            size="floor"
            icon="tray-arrow-down"
            title={t('back.open', { sign: trip.callSign, count: trip.goods.filter((g) => !g.done).length })}
            onPress={() => router.navigate(`/floor/back/${trip.run}`)}
          />
        ))}
        {asked > 0 && (
          <Button
            size="floor"
            icon="counter"
            title={t('counts.open', { count: asked })}
            onPress={() => router.navigate('/floor/counts')}
          />
        )}
      </Row>
    </Column>
  );
}
