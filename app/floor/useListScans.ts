import { useRouter } from 'expo-router';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import type { MyRuns, RunSummary } from '@hand-relay/contract';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';
import { useScans } from '../ui/index.ts';

/**
 * What a scan means on the list of runs: a free cart takes the next run with it, an order's number or slip names its run,
 * a run is opened or asked for its cart.
 *
 * @param enabled false while something else on the screen awaits scans
 * @returns what was wrong with the last one; null where nothing was
 */
export function useListScans(runs: MyRuns | undefined, onTake: (run: RunSummary) => void, enabled: boolean) {
  const { t } = useTranslation();
  const router = useRouter();
  const send = useAppDispatch();
  const [find] = api.useLazyFindQuery();
  const [take] = api.useTakeRunMutation();
  const [wrong, setWrong] = useState<string | null>(null);
  const scanned = async (code: string) => {
    setWrong(null);
    const { data: found, error } = await find({ code });
    if (!found) return setWrong(error ? words(troubleOf(error)) : null);
    const { kind, name } = found;
    if (kind === 'cart') {
      const [next] = runs?.waiting ?? [];
      if (!next) return setWrong(t('floor.noRunFor', { cart: name }));
      const taken = await take({ id: next.id, cart: name });
      if (taken.error) return setWrong(words(troubleOf(taken.error)));
      return router.navigate(`/floor/runs/${next.id}`);
    }
    const meant = kind === 'run' && found.id ? [found.id] : found.runs;
    const mine = runs?.mine.find((r) => meant.includes(r.id));
    if (mine) return router.navigate(`/floor/runs/${mine.id}`);
    const waiting = runs?.waiting.find((r) => meant.includes(r.id));
    if (waiting) return onTake(waiting);
    if (kind === 'item' || kind === 'bin')
      return send(notify({ kind: 'done', text: t(kind === 'item' ? 'scan.isItem' : 'scan.isBin', { name }) }));
    if (kind === 'run' && found.id) return router.navigate(`/floor/runs/${found.id}`);
    if (kind === 'void') return setWrong(t('scan.void', { name }));
    if (kind === 'place') return setWrong(t('scan.isPlace', { name }));
    return setWrong(kind === 'nothing' ? t('scan.nothing', { code }) : t('floor.notInRun', { name }));
  };
  useScans((code) => void scanned(code), { enabled });
  return wrong;
}
