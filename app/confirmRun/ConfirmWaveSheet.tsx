import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { View } from 'react-native';
import type { RunSummary, WaveSummary } from '@hand-relay/contract';
import { api, notify, useAppDispatch } from '../state/index.ts';
import { number } from '../text/index.ts';
import { Button, Checkbox, Failed, Labelled, Loading, Picker, Row, Rule, Sheet, Signal, Text } from '../ui/index.ts';
import { faultsOf, firstExceptions, shortOf, type Exceptions } from './exception.ts';
import { PickRows } from './PickRows.tsx';
import { useConfirmRuns } from './useConfirmRuns.ts';

const PROPOSED = '';

/** Confirms the runs of a wave that were picked by paper, one after the other: all as planned, except what is ticked. */
export function ConfirmWaveSheet({
  wave,
  runs,
  onClose,
}: {
  wave: WaveSummary;
  runs: RunSummary[];
  onClose: () => void;
}) {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const { data: places } = api.useDeskPlacesQuery();
  const { data: crew } = api.useCrewQuery();
  // What is confirmed on the way stays in the list, so that nothing moves.
  const [listed] = useState(() => runs.filter((r) => r.state === 'waiting' || r.state === 'picking'));
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [except, setExcept] = useState<Record<string, Exceptions>>({});
  const [lane, setLane] = useState(PROPOSED);
  const [picker, setPicker] = useState('');
  const { confirm, cancel, done, failed, busy } = useConfirmRuns();
  const wanted = listed.filter((r) => !left.has(r.id) && !done.has(r.id));
  const go = async () => {
    const count = await confirm(
      wanted.map((r) => r.id),
      { lane: lane || null, picker: picker || null, except },
    );
    if (count > 0)
      send(notify({ kind: 'done', text: t('confirmRun.waveDone', { number: wave.number, count }), about: wave.id }));
    if (count === wanted.length) onClose();
  };
  return (
    <Sheet
      title={t('confirmRun.waveTitle', { number: wave.number })}
      onClose={busy ? cancel : onClose}
      keys={
        <>
          {busy && (
            <Text live="polite">{t('confirmRun.progress', { n: done.size, count: done.size + wanted.length })}</Text>
          )}
          <Button title={t(busy ? 'confirmRun.stop' : 'release.cancel')} onPress={busy ? cancel : onClose} />
          <Button
            kind="act"
            title={t('confirmRun.waveDo', { count: wanted.length })}
            disabled={wanted.length === 0}
            busy={busy}
            onPress={() => void go()}
          />
        </>
      }
    >
      <Row gap={16} style={{ alignItems: 'flex-start' }}>
        <Labelled label={t('confirmRun.lane')}>
          <Picker
            label={t('confirmRun.lane')}
            value={lane}
            onChange={setLane}
            options={[
              { value: PROPOSED, title: t('confirmRun.proposed') },
              ...(places?.lanes ?? []).map((code) => ({ value: code, title: code })),
            ]}
          />
        </Labelled>
        <Labelled label={t('confirmRun.picker')}>
          <Picker
            label={t('confirmRun.picker')}
            value={picker}
            onChange={setPicker}
            options={[
              { value: '', title: t('confirmRun.whoHasIt') },
              ...(crew?.people ?? []).map((p) => ({ value: p.id, title: p.name })),
            ]}
          />
        </Labelled>
      </Row>
      <Text colour="quiet">{t('confirmRun.waveText')}</Text>
      <View role="list" aria-label={t('confirmRun.runs')}>
        {listed.map((run) => (
          <RunPart
            key={run.id}
            run={run}
            taken={!left.has(run.id)}
            isDone={done.has(run.id)}
            trouble={failed.get(run.id)}
            except={except[run.id] ?? {}}
            onTake={(take) => setLeft(new Set(take ? [...left].filter((id) => id !== run.id) : [...left, run.id]))}
            onExcept={(next) => setExcept({ ...except, [run.id]: next })}
          />
        ))}
      </View>
    </Sheet>
  );
}

/** A run of the wave: confirmed or left out, its picks beneath once somebody asks for them. */
function RunPart({
  run,
  taken,
  isDone,
  trouble,
  except,
  onTake,
  onExcept,
}: {
  run: RunSummary;
  taken: boolean;
  isDone: boolean;
  trouble: string | undefined;
  except: Exceptions;
  onTake: (take: boolean) => void;
  onExcept: (except: Exceptions) => void;
}) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  const name = `${run.number} ${run.callSign}`;
  return (
    <View role="listitem" style={{ gap: 8, paddingVertical: 6 }}>
      <Row gap={12} style={{ justifyContent: 'space-between' }}>
        {isDone ? (
          <Text kind="strong">{name}</Text>
        ) : (
          <Checkbox shown label={name} checked={taken} onPress={() => onTake(!taken)} />
        )}
        <Row gap={12}>
          <Text colour="quiet">
            {[run.picker ?? run.assigned, t('unit.picks', { count: run.picks - run.picksDone })]
              .filter(Boolean)
              .join(' · ')}
          </Text>
          {isDone ? (
            <Signal kind="done" text={t('confirmRun.confirmed')} />
          ) : (
            <Button
              size="small"
              icon={open ? 'chevron-down' : 'chevron-right'}
              title={t('confirmRun.except', { n: number(Object.keys(except).length) })}
              label={t('confirmRun.exceptOf', { run: name })}
              onPress={() => setOpen(!open)}
            />
          )}
        </Row>
      </Row>
      {trouble !== undefined && !isDone && <Failed text={trouble} />}
      {open && !isDone && <Picks id={run.id} except={except} onExcept={onExcept} />}
      <Rule />
    </View>
  );
}

function Picks({ id, except, onExcept }: { id: string; except: Exceptions; onExcept: (except: Exceptions) => void }) {
  const { t } = useTranslation();
  const { data } = api.useRunQuery(id);
  if (!data) return <Loading rows={3} />;
  const open = data.picks.filter((p) => p.state === 'open');
  const all = { ...firstExceptions(open), ...except };
  const shorts = shortOf(open, all);
  return (
    <>
      {shorts > 0 && <Signal kind="caution" size="body" text={t('confirmRun.short', { count: shorts })} />}
      <PickRows
        picks={open}
        except={all}
        faults={new Map(open.map((p) => [p.step.id, faultsOf(p, all[p.step.id])]))}
        onChange={onExcept}
      />
    </>
  );
}
