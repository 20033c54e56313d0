import { useTranslation } from 'react-i18next';
import { binRules, type BinRule } from '@hand-relay/core/walking/bins';
import { Column, Button, Row, Text } from '../ui/index.ts';

/** The rules by which bins are chosen, in their order: moved up, dropped, added at the end. */
export function BinRules({ rules, onChange }: { rules: readonly BinRule[]; onChange: (rules: BinRule[]) => void }) {
  const { t } = useTranslation();
  const name = (rule: BinRule) => t(`settings.bins.rule.${rule}`);
  const sooner = (at: number) => {
    const next = [...rules];
    next.splice(at - 1, 2, rules[at]!, rules[at - 1]!);
    onChange(next);
  };
  return (
    <Column gap={6}>
      <Text colour="quiet">{t('settings.bins.about')}</Text>
      {rules.length === 0 && <Text>{t('settings.bins.none')}</Text>}
      {rules.map((rule, i) => (
        <Row key={rule} gap={8}>
          <Text kind="strong" style={{ width: 230 }}>{`${i + 1}  ${name(rule)}`}</Text>
          <Button
            size="small"
            icon="arrow-up"
            iconOnly
            title={t('settings.bins.sooner', { rule: name(rule) })}
            disabled={i === 0}
            onPress={() => sooner(i)}
          />
          <Button
            size="small"
            icon="close"
            iconOnly
            title={t('settings.bins.drop', { rule: name(rule) })}
            onPress={() => onChange(rules.filter((r) => r !== rule))}
          />
        </Row>
      ))}
      <Row gap={6}>
        {binRules
          .filter((rule) => !rules.includes(rule))
          .map((rule) => (
            <Button
              key={rule}
              size="small"
              icon="plus"
              title={name(rule)}
              label={t('settings.bins.add', { rule: name(rule) })}
              onPress={() => onChange([...rules, rule])}
            />
          ))}
      </Row>
    </Column>
  );
}
