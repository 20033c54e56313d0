import i18next from 'i18next';
import { localDate } from '@hand-relay/core/calendar';

const numbers = new Intl.NumberFormat('en-GB');

export function number(value: number): string {
  return numbers.format(value);
}

/** Kilograms of grams, with the decimals that matter. */
export function weight(grams: number): string {
  const kg = grams / 1000;
  return kg >= 100 ? numbers.format(Math.round(kg)) : kg.toFixed(kg >= 10 ? 1 : 2);
}

/** Clock time of an instant at the site. */
export function clock(instant: string, timeZone: string): string {
  return new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone }).format(new Date(instant));
}

/** A day of the site: today, tomorrow, or its name. */
export function dayName(date: string, timeZone: string, now: number): string {
  const today = localDate(now, timeZone);
  const gap = Math.round((Date.parse(date) - Date.parse(today)) / 86_400_000);
  if (gap === 0) return i18next.t('time.today');
  if (gap === 1) return i18next.t('time.tomorrow');
  if (gap === -1) return i18next.t('time.yesterday');
  return new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(
    new Date(`${date}T00:00:00Z`),
  );
}

/** How far off an instant is, in words: "in 25 min", "late by 1 h 5 min". */
export function relative(instant: string, now: number): string {
  const minutes = Math.round((Date.parse(instant) - now) / 60_000);
  const far = Math.abs(minutes);
  const time =
    far < 60
      ? i18next.t('time.minutes', { count: far })
      : i18next.t('time.hours', { hours: Math.floor(far / 60), minutes: far % 60 });
  return minutes >= 0 ? i18next.t('time.in', { time }) : i18next.t('time.late', { time });
}
