import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, notify, troubleOf, useMay, useAppDispatch, words } from '../state/index.ts';
import { Failed, Field, Button, Loading, Row, Signal, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

const fields = ['name', 'street', 'city', 'timeZone', 'currency', 'gs1Prefix'] as const;
type Entered = Record<(typeof fields)[number], string>;

/** What the site is told by: on labels, in times and in the numbers of its units. */
export function SiteView() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data, error, refetch } = api.useSiteQuery();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('setup.site')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && <Form site={data.site} />}
    </Page>
  );
}

function Form({ site }: { site: Partial<Entered> }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const may = useMay('house.sites');
  const [entered, setEntered] = useState<Entered>(
    () => Object.fromEntries(fields.map((f) => [f, site[f] ?? ''])) as Entered,
  );
  const [save, { error, isLoading }] = api.useChangeSiteMutation();
  const trouble = error ? troubleOf(error) : null;
  const go = async () => {
    const done = await save({ ...entered, currency: entered.currency.toUpperCase() });
    if (done.data) send(notify({ kind: 'done', text: t('setup.siteSaved') }));
  };
  return (
    <View style={{ maxWidth: 720, gap: 16 }}>
      <Row gap={12} style={{ alignItems: 'flex-start' }}>
        {fields.map((name) => (
          <View key={name} style={{ flexGrow: 1, flexBasis: 280 }}>
            <Field
              label={t(`setup.first.${name === 'name' ? 'site' : name}`)}
              value={entered[name]}
              onChange={(value) => setEntered({ ...entered, [name]: value })}
              onSubmit={() => void go()}
              error={trouble?.fields.find((f) => f.path === name)?.message}
            />
          </View>
        ))}
      </Row>
      {trouble && trouble.fields.length === 0 && <Failed text={words(trouble)} />}
      {may ? (
        <Row>
          <Button kind="act" title={t('setup.save')} busy={isLoading} onPress={() => void go()} />
        </Row>
      ) : (
        <Signal kind="caution" text={t('setup.siteReadOnly')} size="body" />
      )}
    </View>
  );
}
