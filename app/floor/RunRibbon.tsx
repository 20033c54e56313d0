import { memo } from 'react';
import { useTranslation } from 'react-i18next';
import type { RunPick } from '@hand-relay/contract';
import { Ribbon, type RibbonStop } from '../ui/index.ts';

/** The bins of a run, done and to come. Drawn again only when one of them changed. */
export const RunRibbon = memo(function RunRibbon({
  picks,
  current,
  onOpen,
}: {
  picks: RunPick[];
  current: string;
  onOpen: () => void;
}) {
  const { t } = useTranslation();
  const stops = [...new Set(picks.map((p) => p.step.bin))].map((bin): RibbonStop => {
    const at = picks.filter((p) => p.step.bin === bin);
    const state = at.some((p) => p.state === 'open') ? 'open' : at.some((p) => p.state === 'short') ? 'short' : 'done';
    return { key: bin, state };
  });
  const done = stops.filter((s) => s.state !== 'open').length;
  return (
    <Ribbon stops={stops} current={current} onPress={onOpen} label={t('floor.ribbon', { done, count: stops.length })} />
  );
});
