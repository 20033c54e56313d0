import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { addressOf, api, useMay } from '../state/index.ts';
import { ConfirmRunSheet } from '../confirmRun/index.ts';
import { distance, duration } from '../text/index.ts';
import { FloorPlan, Button, Loading, planAround, Row, Signal, stopsOf, Text } from '../ui/index.ts';

/** A run drawn on the floor: its walk, its stops in order, the baton at the last one done. */
export function RunPlan({ id }: { id: string }) {
  const { t } = useTranslation();
  const router = useRouter();
  const mayConfirm = useMay('runs.arrange');
  const [confirming, setConfirming] = useState(false);
  const { data: run } = api.useRunQuery(id);
  const { data: plan } = api.useFloorPlanQuery();
  if (!run || !plan) return <Loading rows={4} />;
  const view = planAround(plan, run.path);
  return (
    <View style={{ gap: 8 }}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text kind="heading" level={2}>
          {t('floor.run', { number: run.run.number })} · {run.run.callSign}
        </Text>
        <Row gap={6}>
          {mayConfirm && ['waiting', 'picking'].includes(run.run.state) && (
            <Button size="small" title={t('confirmRun.key')} onPress={() => setConfirming(true)} />
          )}
          <Button
            size="small"
            title={t('board.printRun')}
            onPress={() => window.open(addressOf({ name: 'pickList', id }), '_blank')}
          />
          <Button size="small" title={t('waves.openRun')} onPress={() => router.navigate(`/floor/runs/${id}`)} />
        </Row>
      </Row>
      <Text colour="quiet">{t('board.takes', { time: duration(run.run.seconds) })}</Text>
      {run.run.approach !== null && (
        <Text colour="quiet">{t('board.approach', { metres: distance(run.run.approach) })}</Text>
      )}
      <Signal
        kind={run.run.proven ? 'done' : 'quiet'}
        text={run.run.proven ? t('board.provenLong') : t('board.boundLong', { metres: distance(run.run.lowerBound) })}
      />
      <View style={{ width: '100%', aspectRatio: view.width / view.height, maxHeight: 560 }}>
        <FloorPlan
          plan={plan}
          view={view}
          path={run.path}
          stops={stopsOf(run.picks)}
          label={t('floor.card', {
            stops: t('unit.stops', { count: run.run.stops }),
            orders: t('unit.orders', { count: run.run.orders }),
            units: t('unit.units', { count: run.run.units }),
            walk: distance(run.run.metres),
          })}
        />
      </View>
      {confirming && <ConfirmRunSheet id={id} onClose={() => setConfirming(false)} />}
    </View>
  );
}
