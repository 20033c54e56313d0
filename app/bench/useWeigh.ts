import { api, troubleOf, words } from '../state/index.ts';
import { i18n } from '../text/index.ts';
import { thisBench } from './BenchChoice.tsx';
import { serialScale } from './serialScale.ts';
import type { usePackInputs } from './usePackInputs.ts';

/**
 * Weighs the carton in hand: by the scale on this device's own line where one is connected, else by the one of the bench.
 *
 * @returns what is called where a packer wants it weighed; what keeps it from that is said
 */
export function useWeigh({
  say,
  command,
  readOrder,
}: Pick<ReturnType<typeof usePackInputs>, 'say' | 'command' | 'readOrder'>): () => void {
  const [ask] = api.useLazyScaleQuery();
  return () =>
    command(async (put) => {
      if (serialScale.connected()) {
        const grams = serialScale.shows();
        return grams === null
          ? say({ kind: 'refused', text: i18n.t('bench.noSteadyWeight') })
          : put({ kind: 'weigh', grams });
      }
      const order = await readOrder();
      if (!order) return;
      const { data, error } = await ask({ bench: thisBench(order.benches) });
      return data ? put({ kind: 'weigh', grams: data.grams }) : say({ kind: 'refused', text: words(troubleOf(error)) });
    });
}
