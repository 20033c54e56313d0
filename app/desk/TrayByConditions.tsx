import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { faultOf, meets, type Conditions } from '@hand-relay/core/deciding/conditions';
import { api, useHouse } from '../state/index.ts';
import { Column, ConditionsBuilder, Field, Button, Row, Text } from '../ui/index.ts';
import { orderFields, orderValues } from './conditionFields.ts';
import { KeptKeys } from './KeptKeys.tsx';
import { canMove, type Listed } from './listing.ts';

const nothing: Conditions = { match: 'all', list: [] };

/** Finds orders by conditions on anything that the list shows, and puts them into the tray; conditions are kept by name. */
export function TrayByConditions({ rows, onAdd }: { rows: Listed[]; onAdd: (orders: string[]) => void }) {
  const { t } = useTranslation();
  const { withChoices, choiceName } = useHouse();
  const [saveView, saving] = api.useSaveViewMutation();
  const [conditions, setConditions] = useState(nothing);
  const [name, setName] = useState('');
  const whole = conditions.list.length > 0 && conditions.list.every((c) => faultOf(c, orderFields) === null);
  const found = whole ? rows.filter((r) => canMove(r) && meets(conditions, orderFields, orderValues(r))) : [];
  return (
    <Column gap={10}>
      <Text kind="heading" level={2}>
        {t('conditions.title')}
      </Text>
      <Row gap={4}>
        <KeptKeys
          list="conditions"
          isHere={(settings) => JSON.stringify(settings) === JSON.stringify(conditions)}
          onChoose={(settings) => setConditions(settings as unknown as Conditions)}
        />
      </Row>
      <ConditionsBuilder
        fields={withChoices(orderFields)}
        choiceName={choiceName}
        names="orders.column"
        value={conditions}
        onChange={setConditions}
      />
      {whole && (
        <Row gap={8}>
          <Button
            kind="act"
            title={t('conditions.put', { count: found.length })}
            disabled={found.length === 0}
            onPress={() => onAdd(found.map((r) => r.id))}
          />
          <View style={{ flexGrow: 1, flexBasis: 140, maxWidth: 240 }}>
            <Field bare label={t('views.name')} placeholder={t('views.name')} value={name} onChange={setName} />
          </View>
          <Button
            title={t('conditions.save')}
            busy={saving.isLoading}
            disabled={!name.trim()}
            onPress={() => {
              const settings = { ...conditions };
              void saveView({ list: 'conditions', name: name.trim(), settings }).then(
                (done) => done.data && setName(''),
              );
            }}
          />
        </Row>
      )}
    </Column>
  );
}
