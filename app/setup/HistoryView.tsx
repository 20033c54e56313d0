import { useRouter } from 'expo-router';
import { useTranslation } from 'react-i18next';
import type { SetupHistory } from '@hand-relay/contract';
import { api, tell, troubleOf, useMe, useNow, useSend, words } from '../state/index.ts';
import { moment } from '../text/index.ts';
import { Card, Column, Empty, Failed, Key, Loading, Row, Txt, useShortcuts } from '../ui/index.ts';
import { Page } from '../shell/index.ts';

/** Who changed what in Setup, the newest first, each to be undone while nothing was built on it. */
export function HistoryView() {
  const { t } = useTranslation();
  const router = useRouter();
  const me = useMe();
  const now = useNow();
  const send = useSend();
  const { data, error, refetch } = api.useSetupHistoryQuery();
  const [undo, { isLoading, originalArgs }] = api.useSetupUndoMutation();
  useShortcuts({ Escape: () => router.navigate('/setup') });
  const nameOf = (e: SetupHistory['entries'][number]) => {
    if (!e.sheet) return t(`trail.${e.kind}`, e.facts);
    const what = `${t(`setup.sheet.${e.sheet}`)}: ${t('setup.rows', { count: e.rows ?? 0 })}${e.file ? `, ${e.file}` : ''}`;
    return e.undoes ? t('setup.undoOf', { what }) : what;
  };
  const takeBack = async (entry: SetupHistory['entries'][number]) => {
    const done = await undo(entry.id);
    send(
      tell(
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
              <Txt kind="strong">{nameOf(e)}</Txt>
              <Txt kind="small" colour="quiet">
                {`${moment(e.at, me.site.timeZone, now)} · ${e.person ?? '–'}`}
              </Txt>
            </Column>
            {e.undone ? (
              <Txt colour="quiet">{t('setup.wasUndone')}</Txt>
            ) : e.sheet === null ? null : (
              <Key
                size="small"
                title={t(e.undoes ? 'setup.redo' : 'notice.undo')}
                busy={isLoading && originalArgs === e.id}
                onPress={() => void takeBack(e)}
              />
            )}
          </Row>
        </Card>
      ))}
    </Page>
  );
}
