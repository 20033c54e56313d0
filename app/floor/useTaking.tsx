import { useRouter } from 'expo-router';
import { useState, type ReactNode } from 'react';
import type { RunSummary } from '@hand-relay/contract';
import { api, troubleOf, useMe, words } from '../state/index.ts';
import { TakeSheet } from './TakeSheet.tsx';

/** Takes runs: at once where the site asks for no cart, else with a sheet that asks for it. */
export function useTaking(): {
  begin: (run: RunSummary) => void;
  /** The sheet, where it is open. */
  sheet: ReactNode;
  asking: boolean;
  busy: boolean;
  wrong: string | null;
} {
  const router = useRouter();
  const { settings } = useMe();
  const [taking, setTaking] = useState<RunSummary | null>(null);
  const [take, { isLoading, error }] = api.useTakeRunMutation();
  const begin = async (run: RunSummary) => {
    // What somebody began lies on its cart: that one is looked for.
    if (settings.askCart || run.cart) return setTaking(run);
    const done = await take({ id: run.id, cart: null });
    if (done.data) router.navigate(`/floor/runs/${run.id}`);
  };
  return {
    begin: (run) => void begin(run),
    sheet: taking && <TakeSheet run={taking} onClose={() => setTaking(null)} />,
    asking: taking !== null,
    busy: isLoading,
    wrong: error ? words(troubleOf(error)) : null,
  };
}
