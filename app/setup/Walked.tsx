import { useTranslation } from 'react-i18next';
import type { Walking } from '@hand-relay/core/waves';
import { Choice, Column, Txt } from '../ui/index.ts';

/** How runs are walked at a site. */
export function Walked({ walking, onChange }: { walking: Walking; onChange: (walking: Walking) => void }) {
  const { t } = useTranslation();
  const { by, between, direction } = walking;
  return (
    <Column gap={8}>
      <Choice
        label={t('way.walking.by.title')}
        value={by}
        onChange={(value) => onChange({ ...walking, by: value })}
        options={(['shortest', 'sequence'] as const).map((value) => ({ value, title: t(`way.walking.by.${value}`) }))}
      />
      <Txt colour="quiet">{t(`way.walking.about.${by}`)}</Txt>
      <Choice
        label={t('way.walking.between.title')}
        value={between}
        onChange={(value) => onChange({ ...walking, between: value })}
        options={(['home', 'chain'] as const).map((value) => ({ value, title: t(`way.walking.between.${value}`) }))}
      />
      {between === 'chain' && (
        <>
          <Choice
            label={t('way.walking.direction.title')}
            value={direction}
            onChange={(value) => onChange({ ...walking, direction: value })}
            options={(['alternate', 'one'] as const).map((value) => ({
              value,
              title: t(`way.walking.direction.${value}`),
            }))}
          />
          <Txt colour="quiet">{t('way.walking.about.chain')}</Txt>
        </>
      )}
    </Column>
  );
}
