import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import { api, troubleOf, words } from '../state/index.ts';
import { Card, Failed, Button, Row, Signal, Text, useSurface } from '../ui/index.ts';

const EVERY_MS = 300;

/** How far an import is, with a key that stops it; at its end what was written, and what was not. */
export function JobProgress({ job, onDone }: { job: string; onDone: () => void }) {
  const { t } = useTranslation();
  const surface = useSurface();
  const { data, error } = api.useJobQuery(job, { pollingInterval: EVERY_MS });
  const [cancel, cancelling] = api.useCancelJobMutation();
  // All that a job wrote is one entry of the history, of its name.
  const [undo, undoing] = api.useSetupUndoMutation();
  if (error) return <Failed text={words(troubleOf(error))} />;
  if (!data) return null;
  const over = data.state !== 'running';
  const share = data.all === 0 ? 1 : data.done / data.all;
  const facts = { done: data.done, all: data.all, rest: data.all - data.done };
  return (
    <Card gap={10}>
      <View
        role="progressbar"
        aria-label={t('setup.writing')}
        aria-valuemin={0}
        aria-valuemax={data.all}
        aria-valuenow={data.done}
        style={{ height: 12, borderRadius: 2, backgroundColor: surface.sunk }}
      >
        <View style={{ height: 12, borderRadius: 2, width: `${share * 100}%`, backgroundColor: surface.done }} />
      </View>
      {data.state === 'running' && <Text live="polite">{t('setup.written', facts)}</Text>}
      {data.state === 'done' && (
        <Signal kind="done" text={t('setup.allWritten', { ...facts, count: data.all })} size="body" />
      )}
      {data.state === 'cancelled' && <Signal kind="caution" text={t('setup.stopped', facts)} size="body" />}
      {data.state === 'failed' && (
        <Signal kind="refused" text={t('setup.failed', { ...facts, problem: data.problem })} size="body" />
      )}
      {data.errors.length > 0 && over && (
        <Signal kind="caution" text={t('setup.leftBehind', { count: data.errors.length })} size="body" />
      )}
      {undoing.data && (
        <Signal kind="done" text={t('setup.importUndone', { count: undoing.data.changed })} size="body" />
      )}
      {undoing.error && <Failed text={words(troubleOf(undoing.error))} />}
      <Row gap={8}>
        {over ? (
          <>
            {data.done > 0 && !undoing.data && (
              <Button title={t('notice.undo')} busy={undoing.isLoading} onPress={() => void undo({ entry: job })} />
            )}
            <Button kind="act" title={t('setup.see')} onPress={onDone} />
          </>
        ) : (
          <Button title={t('setup.stop')} busy={cancelling.isLoading} onPress={() => void cancel(job)} />
        )}
      </Row>
    </Card>
  );
}
