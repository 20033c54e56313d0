import { useTranslation } from 'react-i18next';
import type { Walking } from '@hand-relay/core/walking/waves';
import { Checkbox, Choice, Column, Text } from '../ui/index.ts';

/** How runs are walked at a site. */
export function Walked({ walking, onChange }: { walking: Walking; onChange: (walking: Walking) => void }) {
  const { t } = useTranslation();
  const { by, between, direction } = walking;
  return (
    <Column gap={8}>
      <Choice
        label={t('settings.walking.by.title')}
        value={by}
        onChange={(value) => onChange({ ...walking, by: value })}
        options={(['shortest', 'sequence'] as const).map((value) => ({
          value,
          title: t(`settings.walking.by.${value}`),
        }))}
      />
      <Text colour="quiet">{t(`settings.walking.about.${by}`)}</Text>
      <Choice
        label={t('settings.walking.between.title')}
        value={between}
        onChange={(value) => onChange({ ...walking, between: value })}
        options={(['home', 'chain'] as const).map((value) => ({
          value,
          title: t(`settings.walking.between.${value}`),
        }))}
      />
      {between === 'chain' && (
        <>
          <Choice
            label={t('settings.walking.direction.title')}
            value={direction}
            onChange={(value) => onChange({ ...walking, direction: value })}
            options={(['alternate', 'one'] as const).map((value) => ({
              value,
              title: t(`settings.walking.direction.${value}`),
            }))}
          />
          <Checkbox
            shown
            label={t('settings.walking.across')}
            checked={walking.acrossDepartures}
            onPress={() => onChange({ ...walking, acrossDepartures: !walking.acrossDepartures })}
          />
          <Text colour="quiet">{t('settings.walking.about.chain')}</Text>
        </>
      )}
    </Column>
  );
}
