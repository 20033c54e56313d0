import i18next from 'i18next';
import { initReactI18next } from 'react-i18next';
import { languages, type Language } from '@hand-relay/contract';
import { en } from './en.ts';
import { showNumbers } from './format.ts';
import { spoken } from './languages.ts';

void i18next.use(initReactI18next).init({
  resources: { en: { translation: en } },
  lng: 'en',
  fallbackLng: 'en',
  interpolation: { escapeValue: false },
  returnNull: false,
});

/** The language that was asked for last. */
let wanted: Language = 'en';

/** Reads the texts of a language that the device has not read yet: English is there from the start. */
async function readTexts(language: Language): Promise<void> {
  if (i18next.hasResourceBundle(language, 'translation')) return;
  i18next.addResourceBundle(language, 'translation', await spoken[language].texts());
}

/** Milliseconds for which texts are waited for: a network may swallow the question for ever. */
const PATIENCE_MS = 2_000;

/**
 * Shows everything in a language, numbers and days too. Where its texts do not come, English stays until they do.
 *
 * @returns when it is shown, or is not waited for any longer
 */
export async function showLanguage(language: Language): Promise<void> {
  wanted = language;
  const read = readTexts(language).then(
    () => true,
    () => false,
  );
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<null>((resolve) => (timer = setTimeout(() => resolve(null), PATIENCE_MS)));
  const there = await Promise.race([read, late]);
  clearTimeout(timer);
  if (there === null)
    void read.then((came) => (came && wanted === language ? showLanguage(language) : Promise.resolve()));
  if (!there || wanted !== language) return;
  showNumbers(spoken[language].locale);
  if (i18next.language !== language) await i18next.changeLanguage(language);
  if (typeof document !== 'undefined') document.documentElement.lang = language;
}

/** The language of whoever the device cannot ask: the one that its browser speaks, as far as it is written here. */
export function browserLanguage(): Language {
  const spokenThere = typeof navigator === 'undefined' ? '' : (navigator.language ?? '').slice(0, 2).toLowerCase();
  return languages.find((l) => l === spokenThere) ?? 'en';
}

export { i18next as i18n, spoken };
export {
  clock,
  calendarDay,
  dayName,
  dayOf,
  headed,
  distance,
  duration,
  mass,
  massUnit,
  tall,
  moment,
  timeOf,
  money,
  price,
  number,
  ago,
  relative,
  showUnits,
  weight,
} from './format.ts';
export { lotWords } from './lots.ts';
export { overWords } from './over.ts';
export { whereOf } from './where.ts';
