import { baton, type Amounts, type Baton } from '@hand-relay/core/handling/progress';
import { i18n, number } from '../text/index.ts';

const part: Record<string, keyof Amounts> = { desk: 'released', floor: 'picked', bench: 'packed', dock: 'shipped' };

/** The baton of amounts, and the name that a screen reader says. */
export function batonOf(amounts: Amounts, leavesAt: string | null, now: number): { state: Baton; label: string } {
  const state = baton(amounts, leavesAt ? Date.parse(leavesAt) : null, now);
  if (amounts.asked === 0) return { state, label: i18n.t('baton.nothing') };
  if (!state.at) return { state, label: i18n.t('baton.done') };
  const leg = part[state.at]!;
  const label = i18n.t('baton.of', {
    leg: i18n.t(`place.${state.at}`),
    done: number(amounts[leg]),
    all: number(amounts.asked),
    verb: i18n.t(`baton.${leg}`),
    time: i18n.t(state.late ? 'baton.late' : 'baton.onTime'),
  });
  return { state, label };
}
