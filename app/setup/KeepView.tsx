import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, View } from 'react-native';
import type { Problem } from '@hand-relay/contract';
import { addressOf, restoreBackup, useMe, useNow, words } from '../state/index.ts';
import { clock, dayName, number } from '../text/index.ts';
import { Card, DropPlace, Failed, Field, Key, Loading, Row, Signal, Txt, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

type State =
  | { at: 'choose' }
  | { at: 'looking'; file: File }
  | { at: 'sure'; file: File; holds: { site: string; orders: number; lastAt: string | null } }
  | { at: 'sending' }
  | { at: 'done'; site: string; orders: number }
  | { at: 'failed'; problem: Pick<Problem, 'code' | 'facts' | 'fields' | 'requestId' | 'status'> };

/** Everything as one file, and back out of one. */
export function KeepView() {
  const { t } = useTranslation();
  const router = useRouter();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('keep.title')} onBack={() => router.navigate('/setup')}>
      <View style={{ maxWidth: 720, gap: 16 }}>
        <Card gap={10}>
          <Txt kind="heading" level={2}>
            {t('keep.save')}
          </Txt>
          <Txt>{t('keep.saveText')}</Txt>
          <Row>
            <Key
              kind="act"
              icon="download"
              title={t('setup.backup')}
              onPress={() => void Linking.openURL(addressOf({ name: 'backup' }))}
            />
          </Row>
          <Txt kind="small" colour="quiet">
            {t('keep.nightly')}
          </Txt>
        </Card>
        <Restore />
      </View>
    </Page>
  );
}

function Restore() {
  const { t } = useTranslation();
  const { site } = useMe();
  const now = useNow();
  const [state, setState] = useState<State>({ at: 'choose' });
  const [typed, setTyped] = useState('');
  /** What the file holds is shown before anybody is asked whether it shall take everything's place. */
  const look = async (file: File) => {
    setState({ at: 'looking', file });
    const answer = await restoreBackup(file, 'lookAtBackup');
    setState('error' in answer ? { at: 'failed', problem: answer.error } : { at: 'sure', file, holds: answer.data });
  };
  const go = async (file: File) => {
    setState({ at: 'sending' });
    const answer = await restoreBackup(file);
    if ('error' in answer) return setState({ at: 'failed', problem: answer.error });
    setState({ at: 'done', ...answer.data });
    // The server closes, puts the file in place and comes back; whoever was signed in then is asked again.
    setTimeout(() => location.assign('/'), 12_000);
  };
  return (
    <Card gap={10}>
      <Txt kind="heading" level={2}>
        {t('keep.restore')}
      </Txt>
      <Txt>{t('keep.restoreText')}</Txt>
      {(state.at === 'choose' || state.at === 'failed') && (
        <DropPlace
          title={t('keep.choose')}
          text={t('keep.chooseText')}
          accept=".backup,.gz"
          onFile={(file) => {
            setTyped('');
            void look(file);
          }}
        />
      )}
      {state.at === 'failed' && <Failed text={words(state.problem)} />}
      {state.at === 'sure' && (
        <>
          <Txt kind="strong">
            {t('keep.holds', {
              site: state.holds.site,
              count: state.holds.orders,
              last: state.holds.lastAt
                ? `${dayName(state.holds.lastAt.slice(0, 10), site.timeZone, now)} ${clock(state.holds.lastAt, site.timeZone)}`
                : '–',
            })}
          </Txt>
          <Signal kind="caution" text={t('keep.sure', { file: state.file.name })} size="body" />
          <Field label={t('keep.type', { site: site.name })} value={typed} onChange={setTyped} focus />
          <Row>
            <Key
              kind="act"
              title={t('keep.go')}
              disabled={typed.trim() !== site.name}
              onPress={() => void go(state.file)}
            />
            <Key title={t('release.cancel')} onPress={() => setState({ at: 'choose' })} />
          </Row>
        </>
      )}
      {(state.at === 'sending' || state.at === 'looking') && <Loading rows={2} />}
      {state.at === 'done' && (
        <Signal kind="done" text={t('keep.done', { site: state.site, orders: number(state.orders) })} size="body" />
      )}
    </Card>
  );
}
