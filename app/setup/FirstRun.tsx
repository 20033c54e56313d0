import { Redirect, useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, View } from 'react-native';
import { api, hasCome, remember, store, troubleOf, words } from '../state/index.ts';
import { Choice, Column, Failed, Field, Button, Loading, Row, Text } from '../ui/index.ts';

type Entered = Record<
  | 'token'
  | 'site'
  | 'street'
  | 'city'
  | 'country'
  | 'timeZone'
  | 'currency'
  | 'gs1Prefix'
  | 'name'
  | 'login'
  | 'password',
  string
>;

/** Where each field of the form stands in the request. */
const paths: Record<keyof Entered, string> = {
  token: 'token',
  site: 'site.name',
  street: 'site.street',
  city: 'site.city',
  country: 'site.country',
  timeZone: 'site.timeZone',
  currency: 'site.currency',
  gs1Prefix: 'site.gs1Prefix',
  name: 'person.name',
  login: 'person.login',
  password: 'person.password',
};

/** The first page of a server that has nothing yet: the site, and who is to set it up. */
export function FirstRun() {
  const { t } = useTranslation();
  const router = useRouter();
  const { data } = api.useSetupStateQuery();
  const [make, making] = api.useFirstRunMutation();
  const [signIn, signing] = api.useSignInMutation();
  const [entered, setEntered] = useState<Entered>(() => ({
    token: '',
    site: '',
    street: '',
    city: '',
    country: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
    currency: 'EUR',
    gs1Prefix: '',
    name: '',
    login: '',
    password: '',
  }));
  const [units, setUnits] = useState<'metric' | 'imperial'>('metric');
  if (!data) return <Loading />;
  if (!data.empty && !making.isSuccess) return <Redirect href="/" />;
  const trouble = making.error ? troubleOf(making.error) : null;
  const wrong = (field: keyof Entered) => trouble?.fields.find((f) => f.path === paths[field])?.message;
  const elsewhere = trouble && !(Object.keys(paths) as (keyof Entered)[]).some(wrong);
  const go = async () => {
    const { token, site, street, city, country, timeZone, currency, gs1Prefix, name, login, password } = entered;
    const done = await make({
      token,
      site: {
        name: site,
        street,
        city,
        country: country.toUpperCase(),
        timeZone,
        currency: currency.toUpperCase(),
        gs1Prefix,
      },
      units,
      person: { name, login, password },
    });
    if (done.error) return;
    const answer = await signIn({ name: login, password });
    if (!answer.data) return router.replace('/sign-in');
    hasCome();
    remember('sign-in', 'name');
    store.dispatch(api.util.resetApiState());
    await store.dispatch(api.util.upsertQueryData('me', undefined, answer.data));
    router.replace('/setup');
  };
  const field = (name: keyof Entered, more: object = {}) => (
    <View style={{ flexGrow: 1, flexBasis: 220 }}>
      <Field
        label={t(`setup.first.${name}`)}
        value={entered[name]}
        onChange={(value) => setEntered({ ...entered, [name]: value })}
        error={wrong(name)}
        {...more}
      />
    </View>
  );
  const ready =
    entered.token &&
    entered.site &&
    entered.timeZone &&
    entered.currency &&
    entered.name &&
    entered.login &&
    entered.password;
  return (
    <ScrollView contentContainerStyle={{ flexGrow: 1, alignItems: 'center', justifyContent: 'center', padding: 20 }}>
      <Column gap={20} style={{ width: '100%', maxWidth: 620 }}>
        <Column gap={6}>
          <Text kind="title" level={1}>
            {t('setup.first.title')}
          </Text>
          <Text colour="quiet">{t('setup.first.text')}</Text>
        </Column>
        <Row gap={12} style={{ alignItems: 'flex-start' }}>
          {field('token', { focus: true, placeholder: t('setup.first.tokenWhere') })}
        </Row>
        <Text kind="heading" level={2}>
          {t('setup.first.siteTitle')}
        </Text>
        <Row gap={12} style={{ alignItems: 'flex-start' }}>
          {field('site')}
          {field('street')}
          {field('city')}
          {field('country', { placeholder: t('setup.first.countryAs') })}
          {field('timeZone')}
          {field('currency')}
          {field('gs1Prefix', { numeric: true, placeholder: t('setup.first.later') })}
        </Row>
        <Choice
          label={t('settings.units.title')}
          value={units}
          onChange={setUnits}
          options={(['metric', 'imperial'] as const).map((value) => ({ value, title: t(`settings.units.${value}`) }))}
        />
        <Text kind="heading" level={2}>
          {t('setup.first.personTitle')}
        </Text>
        <Row gap={12} style={{ alignItems: 'flex-start' }}>
          {field('name')}
          {field('login')}
          {field('password', { secret: true, onSubmit: () => ready && void go() })}
        </Row>
        {elsewhere && <Failed text={words(trouble)} />}
        <Button
          kind="act"
          size="floor"
          title={t('setup.first.go')}
          disabled={!ready}
          busy={making.isLoading || signing.isLoading}
          onPress={() => void go()}
        />
      </Column>
    </ScrollView>
  );
}
