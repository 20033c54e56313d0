import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { number } from '../../text/index.ts';
import { Text } from '../Text.tsx';
import { useSurface } from '../theme.ts';
import { heatOf } from './heat.ts';

const SHARES = [0, 0.05, 0.25, 0.55, 1];

/** What the darkness of racks says: from nothing to pick to the most that any has. */
export function HeatLegend({ most }: { most: number }) {
  const { t } = useTranslation();
  const surface = useSurface();
  return (
    <View
      role="img"
      aria-label={t('plan.legend', { most })}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}
    >
      <Text kind="small" colour="quiet">
        {t('plan.toPick')}
      </Text>
      <Text kind="small">0</Text>
      <View style={{ flexDirection: 'row' }}>
        {SHARES.map((share) => (
          <View
            key={share}
            style={{
              width: 18,
              height: 14,
              borderWidth: 1,
              borderLeftWidth: share === 0 ? 1 : 0,
              borderColor: surface.line,
              backgroundColor: surface.sunk,
            }}
          >
            <View style={{ flex: 1, backgroundColor: surface.ink, opacity: heatOf(share * most, most) }} />
          </View>
        ))}
      </View>
      <Text kind="small">{number(most)}</Text>
    </View>
  );
}
