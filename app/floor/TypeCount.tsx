import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunPick } from '@hand-relay/contract';
import { number } from '../text/index.ts';
import { Column, Field, Button, Row, Text, useScans } from '../ui/index.ts';
import { countUnits } from './card.ts';

/** Digits of the largest count that makes sense. */
const MOST_DIGITS = 6;

/** How many are in hand, typed in what the card asks in; a key changes over to another pack, or to single units. */
export function TypeCount({
  pick,
  onCount,
  onScan,
}: {
  pick: RunPick;
  onCount: (units: number) => void;
  onScan: (text: string) => void;
}) {
  const { t } = useTranslation();
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState(0);
  const kinds = countUnits(pick);
  const kind = kinds[chosen % kinds.length]!;
  const units = Number(typed) * kind.units;
  useScans(onScan);
  const take = () => typed !== '' && onCount(units);
  return (
    <Column gap={8}>
      <Row gap={8} style={{ flexWrap: 'nowrap' }}>
        <View style={{ flex: 1 }}>
          <Field
            size="floor"
            label={t('floor.typeCount')}
            bare
            numeric
            focus
            value={typed}
            onChange={(text) => setTyped(text.replace(/\D/g, '').slice(0, MOST_DIGITS))}
            onSubmit={take}
          />
        </View>
        <Button kind="act" size="floor" title={t('scan.take')} disabled={typed === ''} onPress={take} />
      </Row>
      <Row gap={12}>
        {kinds.length > 1 ? (
          <Button
            icon="swap-horizontal"
            title={kind.name}
            label={t('floor.countIn', { unit: kind.name, next: kinds[(chosen + 1) % kinds.length]!.name })}
            onPress={() => setChosen(chosen + 1)}
          />
        ) : (
          <Text kind="strong">{kind.name}</Text>
        )}
        {kind.units > 1 && (
          <Text kind="strong" live="polite">
            = {number(units)} × {pick.unit}
          </Text>
        )}
      </Row>
    </Column>
  );
}
