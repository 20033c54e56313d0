import { useRef, useState } from 'react';
import type { StackVerdictAnswer } from '@hand-relay/contract';
import { api, remembered, troubleOf, words } from '../state/index.ts';
import { i18n, mass } from '../text/index.ts';
import { play, type Said } from '../ui/index.ts';

/** Scans at a pallet, one after the other: each is judged by what the one before it left. */
export function useStackInputs(id: string, station: string) {
  const [send] = api.useStackInputMutation();
  const queue = useRef<Promise<void>>(Promise.resolve());
  const [said, setSaid] = useState<Said | null>(null);
  const [gone, setGone] = useState(false);
  const sound = remembered('sound') !== 'off';
  const one = async (text: string) => {
    const { data, error } = await send({ id, text, station });
    const next: Said = data ? wordsOf(data) : { kind: 'refused', text: words(troubleOf(error)) };
    play(next.kind === 'refused' ? 'refused' : data?.verdict === 'close' ? 'finished' : 'accepted', sound);
    setSaid(next);
    if (data?.verdict === 'discard') setGone(true);
  };
  return {
    said,
    /** An empty pallet was discarded: there is none any more. */
    gone,
    scanned: (text: string) => {
      queue.current = queue.current.catch(() => undefined).then(() => one(text));
    },
  };
}

function wordsOf({ verdict, ...facts }: StackVerdictAnswer): Said {
  const { name, from, sscc, printer, code, expected, got } = facts;
  switch (verdict) {
    case 'put':
      if (from) return { kind: 'caution', text: i18n.t('pallets.putFrom', { name, from }) };
      return facts.asPlanned
        ? { kind: 'done', text: i18n.t('pallets.put', { name }) }
        : { kind: 'caution', text: i18n.t('pallets.putBesides', { name }) };
    case 'taken-off':
      return { kind: 'done', text: i18n.t('pallets.takenOff', { name }) };
    case 'close': {
      const closed = i18n.t('pallets.closed', { sscc });
      return { kind: 'done', text: printer ? `${closed} ${i18n.t('pallets.printed', { printer })}` : closed };
    }
    case 'discard':
      return { kind: 'done', text: i18n.t('pallets.discarded') };
    case 'refused':
      return {
        kind: 'refused',
        text: i18n.t(`refusal.${code ?? ''}`, {
          got,
          expected: code === 'over-load' ? mass(Number(expected)) : expected,
        }),
      };
  }
}
