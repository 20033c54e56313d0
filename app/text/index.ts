import i18next from 'i18next';
import { initReactI18next } from 'react-i18next';
import type { Language } from '@hand-relay/contract';
import { de } from './de.ts';
import { en } from './en.ts';
import { showNumbers } from './format.ts';

void i18next.use(initReactI18next).init({
  resources: { en: { translation: en }, de: { translation: de } },
  lng: 'en',
  fallbackLng: 'en',
  interpolation: { escapeValue: false },
  returnNull: false,
  showSupportNotice: false,
});

/** Shows everything in a language, numbers and days too. */
export function showLanguage(language: Language): void {
  showNumbers(language === 'de' ? 'de-DE' : 'en-GB');
  if (i18next.language !== language) void i18next.changeLanguage(language);
  if (typeof document !== 'undefined') document.documentElement.lang = language;
}

/** The language of whoever the device cannot ask: the one that its browser speaks, as far as it is written here. */
export const browserLanguage = (): Language =>
  typeof navigator !== 'undefined' && /^de\b/i.test(navigator.language ?? '') ? 'de' : 'en';

export { i18next as i18n };
export {
  clock,
  dayName,
  dayOf,
  distance,
  duration,
  mass,
  massUnit,
  moment,
  timeOf,
  money,
  number,
  ago,
  relative,
  showUnits,
  weight,
} from './format.ts';
export { overWords } from './over.ts';
export { whereOf } from './where.ts';
