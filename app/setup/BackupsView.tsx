import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { Linking, View } from 'react-native';
import type { Problem } from '@hand-relay/contract';
import { addressOf, api, restoreBackup, troubleOf, useMe, useNow, words } from '../state/index.ts';
import { moment, number } from '../text/index.ts';
import { Card, DropPlace, Failed, Field, Button, Loading, Row, Signal, Text, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

type State =
  | { at: 'choose' }
  | { at: 'looking'; file: File }
  | { at: 'sure'; file: File; holds: { site: string; orders: number; lastAt: string | null } }
  | { at: 'sending' }
  | { at: 'done'; site: string; orders: number }
  | { at: 'failed'; problem: Pick<Problem, 'code' | 'facts' | 'fields' | 'requestId' | 'status'> };

/** Everything as one file, and back out of one. */
export function BackupsView() {
  const { t } = useTranslation();
  const router = useRouter();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  return (
    <Page title={t('backups.title')} onBack={() => router.navigate('/setup')}>
      <View style={{ maxWidth: 720, gap: 16 }}>
        <Card gap={10}>
          <Text kind="heading" level={2}>
            {t('backups.save')}
          </Text>
          <Text>{t('backups.saveText')}</Text>
          <Row>
            <Button
              icon="download"
              title={t('setup.backup')}
              onPress={() => void Linking.openURL(addressOf({ name: 'backup' }))}
            />
          </Row>
        </Card>
        <Kept />
        <Restore />
      </View>
    </Page>
  );
}

/** How many are listed: what anybody would go back to. */
const MOST_SHOWN = 10;

/** What the server made by itself, and whether somebody should look after it. */
function Kept() {
  const { t } = useTranslation();
  const { site } = useMe();
  const now = useNow();
  const { data, error, refetch } = api.useBackupsQuery();
  const [make, made] = api.useBackUpNowMutation();
  const newest = data?.files[0];
  return (
    <Card gap={10}>
      <Text kind="heading" level={2}>
        {t('backups.kept')}
      </Text>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading rows={2} />}
      {data && (
        <>
          {data.failed ? (
            <Signal
              kind="refused"
              size="body"
              text={t(`backup.failed.${data.failed.place}`, { why: t(`backup.why.${data.failed.why}`) })}
            />
          ) : data.state === 'late' || data.state === 'off' ? (
            <Signal kind="caution" size="body" text={sinceWhen()} />
          ) : (
            <Signal kind={newest ? 'done' : 'quiet'} size="body" text={sinceWhen()} />
          )}
          <Text>{data.keep > 0 ? t('backups.nightly', { count: data.keep }) : t('backups.off')}</Text>
          {data.files.slice(0, MOST_SHOWN).map((file) => (
            <Row key={file.name} gap={12}>
              <Text kind="mono" style={{ flexGrow: 1 }}>
                {moment(file.at, site.timeZone, now)}
              </Text>
              <Text colour="quiet">{t('backups.size', { mb: number(Math.ceil(file.bytes / 1_000_000)) })}</Text>
              {data.hasSecond && <Text colour="quiet">{t(file.second ? 'backups.second' : 'backups.first')}</Text>}
            </Row>
          ))}
          {!data.hasSecond && <Text colour="quiet">{t('backups.noSecond')}</Text>}
          {made.error && <Failed text={words(troubleOf(made.error))} />}
          <Row>
            <Button title={t('backups.now')} busy={made.isLoading} onPress={() => void make()} />
          </Row>
        </>
      )}
    </Card>
  );

  function sinceWhen(): string {
    if (!newest) return t(data!.keep > 0 && data!.state !== 'late' ? 'backups.today' : 'backup.none');
    return t(data.state === 'late' ? 'backup.late' : 'backups.fresh', { since: moment(newest.at, site.timeZone, now) });
  }
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
    const answer = await restoreBackup(file, 'previewBackup');
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
      <Text kind="heading" level={2}>
        {t('backups.restore')}
      </Text>
      <Text>{t('backups.restoreText')}</Text>
      {(state.at === 'choose' || state.at === 'failed') && (
        <DropPlace
          title={t('backups.choose')}
          text={t('backups.chooseText')}
          accept=".backup,.gz"
          onFiles={([file]) => {
            setTyped('');
            void look(file!);
          }}
        />
      )}
      {state.at === 'failed' && <Failed text={words(state.problem)} />}
      {state.at === 'sure' && (
        <>
          <Text kind="strong">
            {t('backups.holds', {
              site: state.holds.site,
              count: state.holds.orders,
              last: state.holds.lastAt ? moment(state.holds.lastAt, site.timeZone, now) : '–',
            })}
          </Text>
          <Signal kind="caution" text={t('backups.sure', { file: state.file.name })} size="body" />
          <Field label={t('backups.type', { site: site.name })} value={typed} onChange={setTyped} focus />
          <Row>
            <Button
              kind="act"
              title={t('backups.go')}
              disabled={typed.trim() !== site.name}
              onPress={() => void go(state.file)}
            />
            <Button title={t('release.cancel')} onPress={() => setState({ at: 'choose' })} />
          </Row>
        </>
      )}
      {(state.at === 'sending' || state.at === 'looking') && <Loading rows={2} />}
      {state.at === 'done' && (
        <Signal kind="done" text={t('backups.done', { site: state.site, count: state.orders })} size="body" />
      )}
    </Card>
  );
}
