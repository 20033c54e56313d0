import { useRef, useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View, type TextInput } from 'react-native';
import type { Me } from '@hand-relay/contract';
import { lookAfterRestore, outbox } from '../offline/index.ts';
import { allStale, api, remembered, store, troubleOf, words } from '../state/index.ts';
import { Field, Button, Row, Signal } from '../ui/index.ts';

/**
 * Asks the PIN, or the password, of the person who is signed in on this device, and gives them a new session where they
 * are: nothing on the page is lost.
 *
 * @param other a key for who is somebody else
 */
export function SignInAgain({ me, onDone, other }: { me: Me; onDone: () => void; other: ReactNode }) {
  const { t } = useTranslation();
  const [by, setBy] = useState<'pin' | 'password'>(() => (remembered('sign-in') === 'name' ? 'password' : 'pin'));
  const [secret, setSecret] = useState('');
  const field = useRef<TextInput>(null);
  const [signIn, { isLoading, error, reset }] = api.useSignInMutation();
  const person = me.person.id;
  const go = async () => {
    const answer = await signIn(by === 'pin' ? { person, pin: secret } : { person, password: secret });
    setSecret('');
    if (!answer.data) return field.current?.focus();
    // Before anything is read again: what the device had from the server is what it compares with.
    await lookAfterRestore(answer.data);
    await store.dispatch(api.util.upsertQueryData('me', undefined, answer.data));
    // What was asked while nobody was signed in got no answer.
    store.dispatch(allStale({ but: 'me' }));
    void outbox.pump();
    onDone();
  };
  const trouble = error ? troubleOf(error) : null;
  const wrong = trouble?.code === 'sign-in' || trouble?.code === 'malformed';
  return (
    <>
      <Field
        key={by}
        size="floor"
        inputRef={field}
        label={t(by === 'pin' ? 'signIn.pin' : 'signIn.password')}
        value={secret}
        onChange={setSecret}
        onSubmit={() => secret !== '' && void go()}
        secret
        focus
        numeric={by === 'pin'}
        complete={by === 'pin' ? 'off' : 'current-password'}
      />
      {trouble && (
        <View role="alert">
          <Signal
            kind="refused"
            size="body"
            text={wrong ? t(by === 'pin' ? 'signIn.wrongPin' : 'signIn.wrongPassword') : words(trouble)}
          />
        </View>
      )}
      <Button
        kind="act"
        size="floor"
        title={t('signIn.continue')}
        busy={isLoading}
        disabled={secret === ''}
        onPress={() => void go()}
      />
      <Row gap={12} style={{ flexWrap: 'wrap' }}>
        <Button
          title={t(by === 'pin' ? 'signIn.usePassword' : 'signIn.usePin')}
          onPress={() => {
            reset();
            setSecret('');
            setBy(by === 'pin' ? 'password' : 'pin');
          }}
        />
        {other}
      </Row>
    </>
  );
}
