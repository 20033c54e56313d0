import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import type { SetupHistory } from '@hand-relay/contract';
import { api, notify, troubleOf, useMe, useNow, useAppDispatch, words } from '../state/index.ts';
import { moment } from '../text/index.ts';
import { Card, Column, Empty, Failed, Button, Loading, Row, Text, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Who changed what in Setup, the newest first, each to be undone while nothing was built on it. */
export function HistoryView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const send = useAppDispatch();
  const { data, error, refetch } = api.useSetupHistoryQuery();
  const [undo, { isLoading, originalArgs }] = api.useSetupUndoMutation();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const nameOf = (e: SetupHistory['entries'][number]) => {
    if (!e.sheet) return t(`trail.${e.kind}`, e.facts);
    const what = `${t(`setup.sheet.${e.sheet}`)}: ${t('setup.rows', { count: e.rows ?? 0 })}${e.file ? `, ${e.file}` : ''}`;
    return e.undoes ? t('setup.undoOf', { what }) : what;
  };
  const takeBack = async (entry: SetupHistory['entries'][number]) => {
    const done = await undo({ entry: entry.id });
    send(
      notify(
        done.error
          ? { kind: 'refused', text: words(troubleOf(done.error)) }
          : { kind: 'done', text: t('notice.undone', { what: nameOf(entry) }) },
      ),
    );
  };
  return (
    <Page title={t('setup.history')} onBack={() => router.navigate('/setup')}>
      {error && <Failed text={words(troubleOf(error))} onRetry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data?.entries.length === 0 && <Empty title={t('setup.historyNone')} text={t('setup.historyNoneText')} />}
      {data?.entries.map((e) => (
        <Card key={e.id} gap={4} pad={12}>
          <Row gap={12} style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
            <Column gap={2} style={{ flexShrink: 1 }}>
              <Text kind="strong">{nameOf(e)}</Text>
              <Text kind="small" colour="quiet">
                {`${moment(e.at, me.site.timeZone, now)} · ${e.person ?? '–'}`}
              </Text>
            </Column>
            {e.undone ? (
              <Text colour="quiet">{t('setup.wasUndone')}</Text>
            ) : e.sheet === null ? null : (
              <Button
                size="small"
                title={t(e.undoes ? 'setup.redo' : 'notice.undo')}
                busy={isLoading && originalArgs?.entry === e.id}
                onPress={() => void takeBack(e)}
              />
            )}
          </Row>
        </Card>
      ))}
    </Page>
  );
}
