import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { useMay } from '../state/index.ts';
import { Failed, Button, Signal, Text, useScans } from '../ui/index.ts';
import { Page } from '../shell/index.ts';
import { lookHere } from './lookHere.ts';
import { PickList } from './PickList.tsx';
import { RunMap } from './RunMap.tsx';
import { TakeSheet } from './TakeSheet.tsx';
import type { useRun } from './useRun.ts';
import type { Verdict } from './verdict.ts';

/**
 * A run that this person does not pick: who does, how far it is, and, where it waits, a way to take it. What is scanned
 * here of its bins, goods or places is refused: somebody else's hands are in them.
 */
export function OthersRun({
  run,
  picks,
  title,
  verdict,
  onBack,
  onRefuse,
}: {
  run: RunDetail;
  picks: RunPick[];
  title: string;
  verdict: Verdict | null;
  onBack: () => void;
  onRefuse: ReturnType<typeof useRun>['refuse'];
}) {
  const { t } = useTranslation();
  const may = useMay('runs.pick');
  const [taking, setTaking] = useState(false);
  const { number, state, cart, picker } = run.run;
  useScans((text) => {
    const [named] = lookHere(picks, text);
    const pick = named ?? (cart && text.trim().toUpperCase().startsWith(`${cart}-`) ? picks[0] : undefined);
    // Not of this run, or in nobody's hands: it opens what it names, as everywhere.
    if (!pick || !picker || !may) return false;
    onRefuse(pick, { code: 'not-your-run', facts: { run: number, picker, got: text } });
    return true;
  });
  return (
    <Page
      title={title}
      onBack={onBack}
      {...(state === 'waiting' && may
        ? { foot: <Button kind="act" size="floor" title={t('floor.take')} onPress={() => setTaking(true)} /> }
        : {})}
    >
      {picker ? (
        <Signal kind="refused" size="large" text={t('floor.notMine', { picker })} />
      ) : (
        <Text colour="quiet">{t(`waves.runState.${state}`)}</Text>
      )}
      {verdict?.kind === 'refused' && <Failed text={verdict.text} />}
      <RunMap run={run} picks={picks} />
      <PickList picks={picks} />
      {taking && <TakeSheet run={run.run} onClose={() => setTaking(false)} />}
    </Page>
  );
}
