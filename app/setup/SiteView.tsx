import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, notify, troubleOf, useMay, useAppDispatch, words } from '../state/index.ts';
import { Failed, Button, Loading, Row, Signal, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { enteredOf, SiteFields, type EnteredSite } from './SiteFields.tsx';
import { Sites } from './Sites.tsx';

/** What the site is told by: on labels, in times and in the numbers of its units. */
export function SiteView() {
  const { t } = useTranslation();
  const router = useRouter();
  const mayMake = useMay('house.sites');
  const { data, error, refetch } = api.useSiteQuery();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('setup.site')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && <Form site={data.site} />}
      {data && mayMake && <Sites site={data.site} />}
    </Page>
  );
}

function Form({ site }: { site: Partial<EnteredSite> }) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const may = useMay('house.sites');
  const [entered, setEntered] = useState(() => enteredOf(site));
  const [save, { error, isLoading }] = api.useChangeSiteMutation();
  const trouble = error ? troubleOf(error) : null;
  const go = async () => {
    const done = await save({ ...entered, currency: entered.currency.toUpperCase() });
    if (done.data) send(notify({ kind: 'done', text: t('setup.siteSaved') }));
  };
  return (
    <View style={{ maxWidth: 720, gap: 16 }}>
      <SiteFields entered={entered} onChange={setEntered} onSubmit={() => void go()} fields={trouble?.fields ?? []} />
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
