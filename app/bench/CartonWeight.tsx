import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BenchOrder } from '@hand-relay/contract';
import { weightReasons, type PackInput } from '@hand-relay/core/handling/packing';
import { isExpected } from '@hand-relay/core/handling/weighing';
import { mass } from '../text/index.ts';
import { Button, Column, Field, Row, Signal, Text } from '../ui/index.ts';

type OpenCarton = NonNullable<BenchOrder['bench']['carton']>;

/** What the carton in hand should weigh, and what it does: by the scale, or typed. A weight that is off asks for a reason. */
export function CartonWeight({
  carton,
  onInput,
  onWeigh,
}: {
  carton: OpenCarton;
  onInput: (input: PackInput) => void;
  onWeigh: () => void;
}) {
  const { t } = useTranslation();
  const [typed, setTyped] = useState('');
  const { expectedG, toleranceG, measuredG } = carton.weight;
  const off = measuredG !== null && !isExpected(measuredG, { grams: expectedG, toleranceG });
  const enter = () => {
    onInput({ kind: 'weigh', grams: Number(typed) });
    setTyped('');
  };
  return (
    <Column gap={8}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        <Text colour="quiet">{t('bench.expected', { mass: mass(expectedG), tolerance: mass(toleranceG) })}</Text>
        {measuredG !== null && (
          <Signal kind={off ? 'caution' : 'done'} text={t('bench.onScale', { mass: mass(measuredG) })} size="strong" />
        )}
      </Row>
      <Row gap={8} style={{ flexWrap: 'nowrap', alignItems: 'center' }}>
        <Button title={t('bench.weigh')} onPress={onWeigh} />
        <View style={{ flex: 1, minWidth: 90 }}>
          <Field
            bare
            numeric
            label={t('bench.typeWeight')}
            placeholder={t('bench.typeWeight')}
            value={typed}
            onChange={(text) => setTyped(text.replace(/\D/g, ''))}
            onSubmit={enter}
          />
        </View>
        <Button title={t('bench.enterWeight')} disabled={typed === ''} onPress={enter} />
      </Row>
      {off && (
        <Column gap={8}>
          <Text kind="strong">{t('bench.weightOff')}</Text>
          {weightReasons.map((reason) => (
            <Button
              key={reason}
              title={t(`bench.weightReason.${reason}`)}
              onPress={() => onInput({ kind: 'close', reason })}
            />
          ))}
        </Column>
      )}
    </Column>
  );
}
