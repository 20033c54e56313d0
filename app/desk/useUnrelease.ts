import { useTranslation } from 'react-i18next';
import { api, notify, troubleOf, useAppDispatch, words } from '../state/index.ts';

/** Takes released lines back to Desk, as far as no picker has begun them, and says how much came. */
export function useUnrelease() {
  const { t } = useTranslation();
  const send = useAppDispatch();
  const [take, { isLoading }] = api.useUnreleaseMutation();
  const go = (lines: { line: string; units?: number }[]) =>
    void take({ lines }).then((done) => {
      if (!done.data) {
        send(notify({ kind: 'refused', text: words(troubleOf(done.error)) }));
        return;
      }
      const count = done.data.lines.reduce((n, l) => n + l.units, 0);
      send(notify({ kind: 'done', text: t('order.takenBack', { units: t('unit.units', { count }) }) }));
    });
  return { go, isLoading };
}
