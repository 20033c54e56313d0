import type { WaveSummary } from '@hand-relay/contract';
import { duration, i18n, timeOf } from '../text/index.ts';

/** How a wave stands against its departure, in a sentence. */
export function sayWave(wave: WaveSummary, timeZone: string, now: number): string {
  const time = (instant: string) => timeOf(instant, timeZone, now);
  const { forecast, doneBy } = wave;
  if (wave.planProgress !== null) return i18n.t('track.planning', { share: Math.round(100 * wave.planProgress) });
  if (wave.state === 'gathering') return i18n.t('track.gathers');
  if (!forecast) return i18n.t(`waves.state.${wave.state}`);
  if (forecast.left === 0) return i18n.t('track.allPicked');
  if (forecast.ends === null) return i18n.t('track.nobody', { work: duration(forecast.left) });
  const ends = i18n.t('track.ends', {
    time: time(forecast.ends),
    early: time(forecast.early!),
    late: time(forecast.late!),
  });
  if (doneBy === null || !wave.chance || !wave.earliestDeparture) return ends;
  if (Date.parse(wave.earliestDeparture) <= now)
    return `${ends} ${i18n.t('track.gone', { time: time(wave.earliestDeparture) })}`;
  return `${ends} ${i18n.t(`track.chance.${wave.chance}`, { time: time(doneBy) })}`;
}
