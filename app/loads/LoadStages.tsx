import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LoadSummary } from '@hand-relay/contract';
import { batonOf } from '../desk/index.ts';
import { useNow } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Baton, Text } from '../ui/index.ts';

/** How far the goods of a load are: its baton, and of its units what is released, picked, packed and gone. */
export function LoadStages({ load }: { load: LoadSummary }) {
  const { t } = useTranslation();
  const now = useNow();
  if (load.units === 0) return null;
  const { state, label } = batonOf({ ...load, asked: load.units }, load.leavesAt, now);
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
      <Baton state={state} label={label} />
      <Text kind="small" colour="quiet" style={{ flexShrink: 1 }}>
        {(['released', 'picked', 'packed', 'shipped'] as const)
          .map((stage) => t(`loads.stage.${stage}`, { done: number(load[stage]) }))
          .join(' · ')}
        {' · '}
        {t('loads.ofUnits', { units: t('unit.units', { count: load.units }) })}
      </Text>
    </View>
  );
}
