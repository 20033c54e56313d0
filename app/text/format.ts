import i18next from 'i18next';
import { localDate } from '@hand-relay/core/calendar';

let locale = 'en-GB';
let numbers = new Intl.NumberFormat(locale);

/** Numbers, days and money are written as they are read in a country. */
export function showNumbers(of: string): void {
  if (of === locale) return;
  locale = of;
  numbers = new Intl.NumberFormat(locale);
  days = dayForm();
  daysWithYear = yearForm();
}

export function number(value: number): string {
  return numbers.format(value);
}

/** Grams in a pound (international avoirdupois, exact) and metres in a foot. */
const POUND_G = 453.59237;
const FOOT_M = 0.3048;

type Units = 'metric' | 'imperial';
let units: Units = 'metric';

/** The units that the site is shown in; everything is kept and sent in metric ones. */
export function showUnits(shown: Units): void {
  units = shown;
}

/** A weight in kilograms or pounds, with the decimals that matter, without its unit. */
export function weight(grams: number): string {
  const value = grams / (units === 'imperial' ? POUND_G : 1000);
  const digits = value >= 100 ? 0 : value >= 10 ? 1 : 2;
  return new Intl.NumberFormat(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(value);
}

/** A weight with its unit. */
export function mass(grams: number): string {
  return `${weight(grams)} ${massUnit()}`;
}

export function massUnit(): string {
  return units === 'imperial' ? 'lb' : 'kg';
}

/** A distance in whole metres or feet, with its unit. */
export function distance(metres: number): string {
  return units === 'imperial' ? `${number(Math.round(metres / FOOT_M))} ft` : `${number(Math.round(metres))} m`;
}

/** Millimetres in an inch. */
const INCH_MM = 25.4;

/** A height in centimetres or inches, with its unit: as people say how high a pallet is. */
export function tall(millimetres: number): string {
  return units === 'imperial'
    ? `${number(Math.round(millimetres / INCH_MM))} in`
    : `${number(Math.round(millimetres / 10))} cm`;
}

const clocks = new Map<string, Intl.DateTimeFormat>();

/** The form of a clock at a zone, made once: making one costs more than a row of a table. */
function clockOf(timeZone: string): Intl.DateTimeFormat {
  const form =
    clocks.get(timeZone) ?? new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone });
  clocks.set(timeZone, form);
  return form;
}

const dayForm = () =>
  new Intl.DateTimeFormat(locale, { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });
let days = dayForm();
const yearForm = () =>
  new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });
let daysWithYear = yearForm();

/** Clock time of an instant at the site. */
export function clock(instant: string, timeZone: string): string {
  return clockOf(timeZone).format(new Date(instant));
}

/** A text as a heading begins: "today" as "Today". */
export const headed = (text: string): string => text.charAt(0).toLocaleUpperCase() + text.slice(1);

/** A day of the site: today, tomorrow, or its name; with its year where that is another. */
export function dayName(date: string, timeZone: string, now: number): string {
  const today = localDate(now, timeZone);
  const gap = Math.round((Date.parse(date) - Date.parse(today)) / 86_400_000);
  if (gap === 0) return i18next.t('time.today');
  if (gap === 1) return i18next.t('time.tomorrow');
  if (gap === -1) return i18next.t('time.yesterday');
  // In another year the weekday says less than the year.
  const form = date.slice(0, 4) === today.slice(0, 4) ? days : daysWithYear;
  return form.format(new Date(`${date}T00:00:00Z`));
}

/** A day by its weekday and date alone, where today and tomorrow would read oddly. */
export const calendarDay = (date: string): string => days.format(new Date(`${date}T00:00:00Z`));

/** An instant as day and clock time at the site. */
export function moment(instant: string, timeZone: string, now: number): string {
  return `${dayOf(instant, timeZone, now)} ${clock(instant, timeZone)}`;
}

/** An instant as clock time at the site, with its day where that is not today. */
export function timeOf(instant: string, timeZone: string, now: number): string {
  const today = localDate(Date.parse(instant), timeZone) === localDate(now, timeZone);
  return today ? clock(instant, timeZone) : moment(instant, timeZone, now);
}

/** The day of an instant at the site: near midnight another one than the instant's own date says. */
export function dayOf(instant: string, timeZone: string, now: number): string {
  return dayName(localDate(Date.parse(instant), timeZone), timeZone, now);
}

/** Seconds of work as hours and minutes. */
export function duration(seconds: number): string {
  return far(Math.max(1, Math.round(seconds / 60)));
}

/** An amount of money in whole units, with its currency. */
export function money(minor: number, currency: string): string {
  return new Intl.NumberFormat(locale, { style: 'currency', currency, maximumFractionDigits: 0 }).format(minor / 100);
}

/** What one thing costs, with its pence. */
export function price(minor: number, currency: string): string {
  return new Intl.NumberFormat(locale, { style: 'currency', currency }).format(minor / 100);
}

const far = (minutes: number): string =>
  minutes < 60
    ? i18next.t('time.minutes', { count: minutes })
    : i18next.t('time.hours', { hours: Math.floor(minutes / 60), minutes: minutes % 60 });

/** How far off an instant is, in words: "in 25 min", "late by 1 h 5 min". */
export function relative(instant: string, now: number): string {
  const minutes = Math.round((Date.parse(instant) - now) / 60_000);
  const time = far(Math.abs(minutes));
  return minutes >= 0 ? i18next.t('time.in', { time }) : i18next.t('time.late', { time });
}

/** How long ago something happened, in words: "just now", "25 min ago". */
export function ago(instant: string, now: number): string {
  const minutes = Math.floor((now - Date.parse(instant)) / 60_000);
  return minutes < 1 ? i18next.t('time.justNow') : i18next.t('time.ago', { time: far(minutes) });
}
