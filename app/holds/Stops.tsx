import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { stages, type Stage } from '@hand-relay/core/deciding/holds';
import { Button, Row, Text } from '../ui/index.ts';

/** What a hold stops: any of the stages of the work, one at least. */
export function Stops({ value, onChange }: { value: readonly Stage[]; onChange: (value: Stage[]) => void }) {
  const { t } = useTranslation();
  return (
    <View role="group" aria-label={t('hold.stopsTitle')} style={{ gap: 4 }}>
      <Text kind="label" colour="quiet">
        {t('hold.stopsTitle')}
      </Text>
      <Row gap={4}>
        {stages.map((stage) => (
          <Button
            key={stage}
            title={t(`hold.stage.${stage}`)}
            size="small"
            pressed={value.includes(stage)}
            onPress={() => onChange(stages.filter((s) => (s === stage ? !value.includes(s) : value.includes(s))))}
          />
        ))}
      </Row>
      {value.length === 0 && (
        <Text kind="small" colour="refused">
          {t('hold.stopsNeeded')}
        </Text>
      )}
    </View>
  );
}
