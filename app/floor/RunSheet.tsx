import { useRouter } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { afterTold } from '../offline/index.ts';
import { api, remember, remembered, notify, troubleOf, useMay, useMe, useAppDispatch, words } from '../state/index.ts';
import { Column, Failed, Field, Button, Sheet, SurfaceContext, Text } from '../ui/index.ts';
import { PrintKey } from '../shell/index.ts';
import { ConfirmRunSheet } from '../confirmRun/index.ts';
import { CartonsOnCart } from './CartonsOnCart.tsx';

/** What is wanted of a run now and then: looking something up, a note, passing it on, a pause, the sound, a label. */
export function RunSheet({
  run,
  current,
  begun,
  looks,
  onLookUp,
  onClose,
}: {
  run: RunDetail;
  current: RunPick;
  begun: boolean;
  /** The looks of the run, where the screen has no room for them. */
  looks: ReactNode;
  onLookUp: () => void;
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const send = useAppDispatch();
  const [part, setPart] = useState<'all' | 'note' | 'pass' | 'confirm'>('all');
  const mayConfirm = useMay('runs.touch');
  const [note, setNote] = useState('');
  const [sound, setSound] = useState(() => remembered('sound') !== 'off');
  const [picture, setPicture] = useState(() => remembered('card-picture') !== 'off');
  const [pass, passing] = api.useTransferRunMutation();
  const [noteForBench, noting] = api.useNoteForBenchMutation();
  const [trouble, setTrouble] = useState<unknown>();
  const error = trouble ?? noting.error;
  const say = (text: string) => send(notify({ kind: 'done', text }));
  const passTo = async (person: string | null, name: string) => {
    const done = await afterTold(run.run.id, () => pass({ id: run.run.id, person }));
    setTrouble(done.error);
    if (done.error) return;
    say(person ? t('runMore.passed', { name }) : t('runMore.waits', { cart: run.run.cart }));
    router.navigate('/floor');
  };
  const noteIt = async () => {
    const done = await noteForBench({ id: run.run.id, order: current.order.id, note });
    if (done.error) return;
    say(t('runMore.noted', { order: current.order.number }));
    onClose();
  };
  const others = run.people.filter((p) => p.id !== me.person.id);
  const key = (title: string, onPress: () => void, more: object = {}) => (
    <View key={title} style={{ flexDirection: 'row' }}>
      <Button size="floor" wide title={title} onPress={onPress} {...more} />
    </View>
  );
  if (part === 'confirm') return <ConfirmRunSheet id={run.run.id} onClose={onClose} />;
  return (
    <SurfaceContext.Provider value="floor">
      <Sheet
        title={t(part === 'pass' ? 'runMore.passTitle' : part === 'note' ? 'runMore.noteTitle' : 'runMore.title', {
          order: current.order.number,
        })}
        onClose={onClose}
        keys={
          <>
            <Button
              size="floor"
              title={part === 'all' ? t('notice.close') : t('runMore.back')}
              onPress={() => (part === 'all' ? onClose() : setPart('all'))}
            />
            {part === 'note' && (
              <Button
                size="floor"
                kind="act"
                title={t('runMore.noteGo')}
                busy={noting.isLoading}
                disabled={note.trim() === ''}
                onPress={() => void noteIt()}
              />
            )}
          </>
        }
      >
        {error && <Failed text={words(troubleOf(error))} />}
        {part === 'all' && (
          <Column gap={8}>
            {looks}
            {key(t('lookUp.title'), onLookUp)}
            {!current.together && key(t('runMore.note', { order: current.order.number }), () => setPart('note'))}
            {begun && key(t('runMore.pass'), () => setPart('pass'))}
            {mayConfirm && key(t('confirmRun.key'), () => setPart('confirm'))}
            {key(t('runMore.pause'), () => router.navigate('/floor'))}
            {key(t(sound ? 'runMore.quiet' : 'runMore.loud'), () => {
              remember('sound', sound ? 'off' : 'on');
              setSound(!sound);
            })}
            {key(t(picture ? 'runMore.noPicture' : 'runMore.picture'), () => {
              remember('card-picture', picture ? 'off' : 'on');
              setPicture(!picture);
            })}
            <CartonsOnCart run={run} />
            {current.step.carton && (
              <View style={{ flexDirection: 'row' }}>
                <PrintKey size="floor" kind="carton-numbers" of="12" title={t('runMore.numbers')} />
              </View>
            )}
            <Beside run={run.run.id} />
          </Column>
        )}
        {part === 'note' && (
          <Field
            size="floor"
            focus
            label={t('runMore.noteText')}
            value={note}
            onChange={setNote}
            onSubmit={() => void noteIt()}
          />
        )}
        {part === 'pass' && (
          <Column gap={8}>
            {key(t('runMore.anybody', { cart: run.run.cart }), () => void passTo(null, ''), {
              busy: passing.isLoading,
            })}
            {others.map((p) => key(p.name, () => void passTo(p.id, p.name)))}
            {others.length === 0 && <Text colour="quiet">{t('runMore.nobody')}</Text>}
          </Column>
        )}
      </Sheet>
    </SurfaceContext.Provider>
  );
}

/**
 * Who else works on the wave, and on which of the same orders: how far they are.
 *
 * @param ours whether only those that pick a part of this run's orders
 */
export function Beside({ run, ours = false }: { run: string; ours?: boolean }) {
  const { t } = useTranslation();
  const { data } = api.useRunsBesideQuery(run);
  const beside = (data?.beside ?? []).filter((b) => !ours || b.orders.length > 0);
  if (beside.length === 0) return null;
  return (
    <Column gap={4}>
      <Text kind="heading">{t('runMore.beside')}</Text>
      {beside.map((b) => (
        <Text key={b.run} colour={b.orders.length > 0 ? 'ink' : 'quiet'}>
          {[
            b.picker ? t('runMore.picks', { ...b, picker: b.picker }) : t('runMore.notBegun', { ...b }),
            b.orders.length > 0 ? t('runMore.partOf', { orders: b.orders.join(', ') }) : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      ))}
    </Column>
  );
}
