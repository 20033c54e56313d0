import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import {
  faultOf,
  testsOf,
  type Condition,
  type ConditionField,
  type Conditions,
} from '@hand-relay/core/deciding/conditions';
import { Column, Row } from './Box.tsx';
import { Choice } from './Choice.tsx';
import { Field } from './Field.tsx';
import { Button } from './Button.tsx';
import { Picker } from './Picker.tsx';
import { Text } from './Text.tsx';

/** Builds conditions over named fields, a row each; what is wrong with one stands beside it. */
export function ConditionsBuilder({
  fields,
  names,
  choiceName,
  value,
  onChange,
}: {
  fields: readonly ConditionField[];
  /** Where the names of fields and of their choices stand among the texts. */
  names: string;
  /** Names of choices that the house says; others have a text. */
  choiceName?: (field: string, choice: string) => string | undefined;
  value: Conditions;
  onChange: (value: Conditions) => void;
}) {
  const { t } = useTranslation();
  const set = (at: number, change: Partial<Condition>) =>
    onChange({ ...value, list: value.list.map((c, i) => (i === at ? { ...c, ...change } : c)) });
  const first = fields[0]!;
  return (
    <Column gap={8}>
      {value.list.length > 1 && (
        <Choice
          label={t('conditions.match')}
          value={value.match}
          onChange={(match) => onChange({ ...value, match })}
          options={[
            { value: 'all', title: t('conditions.all') },
            { value: 'any', title: t('conditions.any') },
          ]}
        />
      )}
      {value.list.map((condition, i) => {
        const field = fields.find((f) => f.name === condition.field) ?? first;
        const choices = field.kind === 'yes-no' ? ['yes', 'no'] : field.of;
        const fault = faultOf(condition, fields);
        return (
          <View key={i} role="group" aria-label={t('conditions.nth', { n: i + 1 })} style={{ gap: 4 }}>
            <Row gap={6}>
              <Picker
                label={t('conditions.field')}
                value={field.name}
                options={fields.map((f) => ({ value: f.name, title: t(`${names}.${f.name}`) }))}
                onChange={(name) => {
                  const chosen = fields.find((f) => f.name === name)!;
                  set(i, { field: name, test: testsOf[chosen.kind][0], value: chosen.of?.[0] ?? '' });
                }}
              />
              <Picker
                label={t('conditions.testOf')}
                value={condition.test}
                options={testsOf[field.kind].map((test) => ({
                  value: test,
                  title: t(`conditions.test.${field.kind === 'date' ? `date-${test}` : test}`),
                }))}
                onChange={(test) => set(i, { test })}
              />
              {condition.test !== 'is-empty' &&
                (choices ? (
                  <Picker
                    label={t('conditions.value')}
                    value={condition.value}
                    options={choices.map((choice) => ({
                      value: choice,
                      title: choiceName?.(field.name, choice) ?? t(`conditions.choice.${choice}`),
                    }))}
                    onChange={(chosen) => set(i, { value: chosen })}
                  />
                ) : (
                  <View style={{ flexGrow: 1, flexBasis: 120, maxWidth: 220 }}>
                    <Field
                      bare
                      label={t('conditions.value')}
                      placeholder={field.kind === 'date' ? t('conditions.date') : ''}
                      numeric={field.kind === 'number'}
                      value={condition.value}
                      onChange={(text) => set(i, { value: text })}
                    />
                  </View>
                ))}
              <Button
                title={t('conditions.drop', { n: i + 1 })}
                icon="close"
                iconOnly
                onPress={() => onChange({ ...value, list: value.list.filter((_, n) => n !== i) })}
              />
            </Row>
            {fault && (
              <Text kind="small" colour="refused">
                {t(`conditions.fault.${fault}`)}
              </Text>
            )}
          </View>
        );
      })}
      <Row>
        <Button
          title={t('conditions.add')}
          icon="plus"
          size="small"
          onPress={() =>
            onChange({
              ...value,
              list: [...value.list, { field: first.name, test: testsOf[first.kind][0], value: first.of?.[0] ?? '' }],
            })
          }
        />
      </Row>
    </Column>
  );
}
