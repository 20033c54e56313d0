import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { Field, Row } from '../ui/index.ts';

const names = ['name', 'street', 'city', 'country', 'timeZone', 'currency', 'gs1Prefix'] as const;
/** What a site is told by, as it is typed. */
export type EnteredSite = Record<(typeof names)[number], string>;

export const enteredOf = (site: Partial<EnteredSite>): EnteredSite =>
  Object.fromEntries(names.map((name) => [name, site[name] ?? ''])) as EnteredSite;

/** The fields of a site, each with what is wrong with it. */
export function SiteFields({
  entered,
  onChange,
  onSubmit,
  fields,
}: {
  entered: EnteredSite;
  onChange: (entered: EnteredSite) => void;
  onSubmit: () => void;
  fields: readonly { path: string; message: string }[];
}) {
  const { t } = useTranslation();
  const wrong = (name: string) => fields.find((f) => f.path === name || f.path === `site.${name}`)?.message;
  return (
    <Row gap={12} style={{ alignItems: 'flex-start' }}>
      {names.map((name) => (
        <View key={name} style={{ flexGrow: 1, flexBasis: 280 }}>
          <Field
            label={t(`setup.first.${name === 'name' ? 'site' : name}`)}
            value={entered[name]}
            onChange={(value) => onChange({ ...entered, [name]: value })}
            onSubmit={onSubmit}
            error={wrong(name)}
          />
        </View>
      ))}
    </Row>
  );
}
