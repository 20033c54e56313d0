import { Redirect, useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { useTranslation } from 'react-i18next';
import { ScrollView, View, type TextInput } from 'react-native';
import { languages } from '@hand-relay/contract';
import { lookAfterRestore } from '../offline/index.ts';
import { api, finishLeaving, hasCome, remember, remembered, store, troubleOf, words } from '../state/index.ts';
import { browserLanguage, showLanguage } from '../text/index.ts';
import { Baton, Column, Field, Button, Signal, Choice, Text, useNarrow, useScans } from '../ui/index.ts';

type Way = 'badge' | 'name';

/** Sign-in by scanned badge and PIN, or by name and password; the device keeps which one was used last. */
export function SignIn() {
  const { t } = useTranslation();
  const narrow = useNarrow();
  useEffect(() => void showLanguage(languages.find((l) => l === remembered('language')) ?? browserLanguage()), []);
  const router = useRouter();
  const { to } = useLocalSearchParams<{ to?: string }>();
  const [way, setWay] = useState<Way>(() => (remembered('sign-in') === 'name' ? 'name' : 'badge'));
  const [who, setWho] = useState('');
  const [secret, setSecret] = useState('');
  const secretField = useRef<TextInput>(null);
  const { data: state } = api.useSetupStateQuery();
  const [signIn, { isLoading, error, reset }] = api.useSignInMutation();
  // Who was here last may have signed out where the server could not hear of it.
  useEffect(() => void finishLeaving(), []);
  useScans((code) => {
    setWay('badge');
    setWho(code);
    setSecret('');
    reset();
    secretField.current?.focus();
  });
  const go = async () => {
    const answer = await signIn(way === 'badge' ? { badge: who, pin: secret } : { name: who, password: secret });
    if (!answer.data) {
      setSecret('');
      secretField.current?.focus();
      return;
    }
    hasCome();
    await lookAfterRestore(answer.data);
    remember('sign-in', way);
    store.dispatch(api.util.resetApiState());
    await store.dispatch(api.util.upsertQueryData('me', undefined, answer.data));
    router.replace(to ?? '/');
  };
  const change = (next: Way) => {
    setWay(next);
    setWho('');
    setSecret('');
    reset();
  };
  if (state?.empty) return <Redirect href="/first" />;
  const trouble = error ? troubleOf(error) : null;
  const refused =
    trouble?.code === 'sign-in' || trouble?.code === 'malformed'
      ? t('signIn.refused')
      : trouble
        ? words(trouble)
        : null;
  const ready = who.trim() !== '' && secret !== '' && !isLoading;
  return (
    <ScrollView contentContainerStyle={{ flexGrow: 1, alignItems: 'center', justifyContent: 'center', padding: 20 }}>
      <Column gap={20} style={{ width: '100%', maxWidth: 400 }}>
        <View style={{ gap: 10 }}>
          <Baton
            scale={narrow ? 1.5 : 2}
            label={t('app.name')}
            state={{ filled: { desk: 1, floor: 1, bench: 0.55, dock: 0 }, at: 'bench', late: false }}
          />
          <Text kind="title" level={1}>
            {t('app.name')}
          </Text>
          <Text colour="quiet">{t('signIn.claim')}</Text>
        </View>
        <Choice
          bare
          label={t('signIn.how')}
          value={way}
          onChange={change}
          options={[
            { value: 'badge', title: t('signIn.byBadge') },
            { value: 'name', title: t('signIn.byName') },
          ]}
        />
        <Column gap={12}>
          <Field
            key={`who-${way}`}
            size="floor"
            label={t(way === 'badge' ? 'signIn.badge' : 'signIn.name')}
            {...(way === 'badge' ? { placeholder: t('signIn.badgeAsk') } : {})}
            value={who}
            onChange={setWho}
            onSubmit={() => secretField.current?.focus()}
            focus
            complete={way === 'name' ? 'username' : 'off'}
          />
          <Field
            key={`secret-${way}`}
            size="floor"
            inputRef={secretField}
            label={t(way === 'badge' ? 'signIn.pin' : 'signIn.password')}
            value={secret}
            onChange={setSecret}
            onSubmit={() => ready && void go()}
            secret
            numeric={way === 'badge'}
            complete={way === 'name' ? 'current-password' : 'off'}
          />
        </Column>
        {refused && (
          <View role="alert">
            <Signal kind="refused" text={refused} size="body" />
          </View>
        )}
        <Button
          kind="act"
          size="floor"
          title={t('signIn.go')}
          onPress={() => void go()}
          disabled={!ready}
          busy={isLoading}
        />
      </Column>
    </ScrollView>
  );
}
