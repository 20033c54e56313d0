import { useTranslation } from 'react-i18next';
import { binRules, type BinRule } from '@hand-relay/core/bins';
import { Column, Key, Row, Txt } from '../ui/index.ts';

/** The rules by which bins are chosen, in their order: moved up, dropped, added at the end. */
export function BinRules({ rules, onChange }: { rules: readonly BinRule[]; onChange: (rules: BinRule[]) => void }) {
  const { t } = useTranslation();
  const name = (rule: BinRule) => t(`way.bins.rule.${rule}`);
  const sooner = (at: number) => {
    const next = [...rules];
    next.splice(at - 1, 2, rules[at]!, rules[at - 1]!);
    onChange(next);
  };
  return (
    <Column gap={6}>
      <Txt colour="quiet">{t('way.bins.about')}</Txt>
      {rules.length === 0 && <Txt>{t('way.bins.none')}</Txt>}
      {rules.map((rule, i) => (
        <Row key={rule} gap={8}>
          <Txt kind="strong" style={{ width: 230 }}>{`${i + 1}  ${name(rule)}`}</Txt>
          <Key
            size="small"
            icon="arrow-up"
            iconOnly
            title={t('way.bins.sooner', { rule: name(rule) })}
            disabled={i === 0}
            onPress={() => sooner(i)}
          />
          <Key
            size="small"
            icon="close"
            iconOnly
            title={t('way.bins.drop', { rule: name(rule) })}
            onPress={() => onChange(rules.filter((r) => r !== rule))}
          />
        </Row>
      ))}
      <Row gap={6}>
        {binRules
          .filter((rule) => !rules.includes(rule))
          .map((rule) => (
            <Key
              key={rule}
              size="small"
              icon="plus"
              title={name(rule)}
              label={t('way.bins.add', { rule: name(rule) })}
              onPress={() => onChange([...rules, rule])}
            />
          ))}
      </Row>
    </Column>
  );
}
