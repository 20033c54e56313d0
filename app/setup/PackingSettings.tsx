import { useTranslation } from 'react-i18next';
import { labelTimes, slipTimes, weighings, type SiteSettings } from '@hand-relay/core/deciding/settings';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { Checkbox, Choice, Column, Row, Text } from '../ui/index.ts';

const choices = { weighing: weighings, labels: labelTimes, slips: slipTimes } as const;

/** What happens at the benches: weighing, what a closed carton prints, and where it is confirmed to stand. */
export function PackingSettings({
  settings,
  onChange,
}: {
  settings: SiteSettings;
  onChange: (part: Partial<SiteSettings>) => void;
}) {
  const { t } = useTranslation();
  const choice = <K extends keyof typeof choices>(key: K) => (
    <Choice
      label={t(`settings.${key}.title`)}
      value={settings[key]}
      onChange={(value) => onChange({ [key]: value })}
      options={choices[key].map((value) => ({ value, title: t(`settings.${key}.${value}`) }))}
    />
  );
  return (
    <Column gap={16}>
      {choice('weighing')}
      <Column gap={4}>
        {choice('labels')}
        <Text colour="quiet">{t(`settings.labelsAbout.${settings.labels}`)}</Text>
      </Column>
      <Column gap={4}>
        {choice('slips')}
        <Text colour="quiet">{t(`settings.slipsAbout.${settings.slips}`)}</Text>
      </Column>
      <Checkbox
        shown
        label={t('settings.confirmLane')}
        checked={settings.confirmLane}
        onPress={() => onChange({ confirmLane: !settings.confirmLane })}
      />
      <Column gap={4}>
        <Text colour="quiet">{t('settings.packagingFor')}</Text>
        <Row gap={16}>
          {demandKinds.map((kind) => (
            <Checkbox
              key={kind}
              shown
              label={t(`enter.kinds.${kind}`)}
              checked={settings.packagingFor.includes(kind)}
              onPress={() =>
                onChange({
                  packagingFor: demandKinds.filter((k) => (k === kind) !== settings.packagingFor.includes(k)),
                })
              }
            />
          ))}
        </Row>
      </Column>
    </Column>
  );
}
