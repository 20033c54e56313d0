import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { BenchOrder } from '@hand-relay/contract';
import { api, troubleOf, words } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Button, Column, Failed, Field, Row, Text } from '../ui/index.ts';

/** Goods in the carton in hand: some of them, or all, are taken out or moved into another one that is open. */
export function InCarton({
  carton,
  content,
  others,
}: {
  carton: string;
  content: BenchOrder['cartons'][number]['contents'][number];
  others: BenchOrder['bench']['others'];
}) {
  const { t } = useTranslation();
  const [unpack, unpacking] = api.useUnpackMutation();
  const [move, moving] = api.useMoveGoodsMutation();
  const [typed, setTyped] = useState(String(content.units));
  const error = unpacking.error ?? moving.error;
  const { item, lot, serial, units, name } = content;
  const some = Number(typed);
  const goods = { id: carton, item, lot, serial, units: some };
  const possible = some >= 1 && some <= units;
  return (
    <Column gap={4}>
      <Row gap={12} style={{ flexWrap: 'nowrap' }}>
        <Text kind="heading" style={{ minWidth: 40 }} align="right">
          {number(units)}
        </Text>
        <View style={{ flex: 1, minWidth: 0 }}>
          <Text>{name}</Text>
          {(lot || serial) !== '' && (
            <Text kind="mono" colour="quiet">
              {lot ? t('floor.lot', { lot }) : serial}
            </Text>
          )}
        </View>
        {units > 1 && (
          <View style={{ width: 72 }}>
            <Field
              bare
              numeric
              label={t('bench.someOf', { name })}
              value={typed}
              onChange={(text) => setTyped(text.replace(/\D/g, ''))}
              error={possible ? undefined : t('bench.between', { most: number(units) })}
            />
          </View>
        )}
        <Button
          title={t('bench.takeOut')}
          label={`${t('bench.takeOut')} ${name}`}
          busy={unpacking.isLoading}
          disabled={!possible}
          onPress={() => void unpack(goods)}
        />
      </Row>
      {others.length > 0 && (
        <Row gap={8} style={{ justifyContent: 'flex-end' }}>
          {others.map((c) => (
            <Button
              key={c.id}
              size="small"
              title={t('bench.moveTo', { number: c.number })}
              label={t('bench.moveNamed', { name, number: c.number })}
              busy={moving.isLoading}
              disabled={!possible}
              onPress={() => void move({ ...goods, to: c.id })}
            />
          ))}
        </Row>
      )}
      {error && <Failed text={words(troubleOf(error))} />}
    </Column>
  );
}
