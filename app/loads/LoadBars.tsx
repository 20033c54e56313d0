import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { LoadFill } from '@hand-relay/contract';
import { mass, number, overWords } from '../text/index.ts';
import { Column, Signal, Text, useSurface } from '../ui/index.ts';

const cubic = (cm3: number) => (cm3 / 1_000_000).toFixed(1);

/** How full a load is by weight, volume and floor places, each beside what the vehicle takes. */
export function LoadBars({ fill }: { fill: LoadFill }) {
  const { t } = useTranslation();
  const { most } = fill;
  const bars = [
    { name: 'weight', share: fill.weightG / most.weightG, has: mass(fill.weightG), takes: mass(most.weightG) },
    {
      name: 'volume',
      share: fill.volumeCm3 / most.volumeCm3,
      has: cubic(fill.volumeCm3),
      takes: `${cubic(most.volumeCm3)} m³`,
    },
    { name: 'places', share: fill.places / most.places, has: number(fill.places), takes: number(most.places) },
  ] as const;
  return (
    <Column gap={8}>
      {bars.map((bar) => (
        <Bar key={bar.name} title={t(`loads.${bar.name}`)} text={t('loads.of', bar)} share={bar.share} />
      ))}
      {fill.over.map((o) => (
        <Signal key={o.what} kind="refused" text={overWords(o)} size="body" />
      ))}
    </Column>
  );
}

function Bar({ title, text, share }: { title: string; text: string; share: number }) {
  const surface = useSurface();
  return (
    <View style={{ gap: 2 }}>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: 12 }}>
        <Text kind="small" colour="quiet">
          {title}
        </Text>
        <Text kind="number">
          {text} · {number(Math.round(share * 100))} %
        </Text>
      </View>
      <View style={{ height: 10, backgroundColor: surface.sunk, borderRadius: 2 }}>
        <View
          style={{
            height: 10,
            borderRadius: 2,
            width: `${Math.min(1, share) * 100}%`,
            backgroundColor: share > 1 ? surface.refused : surface.ink,
          }}
        />
      </View>
    </View>
  );
}
