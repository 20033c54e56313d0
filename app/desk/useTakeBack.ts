import { useTranslation } from 'react-i18next';
import { api, tell, troubleOf, useSend, words } from '../state/index.ts';

/** Takes released lines back to Desk, as far as no picker has begun them, and says how much came. */
export function useTakeBack() {
  const { t } = useTranslation();
  const send = useSend();
  const [take, { isLoading }] = api.useTakeBackMutation();
  const go = (lines: { line: string; units?: number }[]) =>
    void take({ lines }).then((done) => {
      if (!done.data) {
        send(tell({ kind: 'refused', text: words(troubleOf(done.error)) }));
        return;
      }
      const count = done.data.lines.reduce((n, l) => n + l.units, 0);
      send(tell({ kind: 'done', text: t('order.takenBack', { units: t('unit.units', { count }) }) }));
    });
  return { go, isLoading };
}
