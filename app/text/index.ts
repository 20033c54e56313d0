import i18next from 'i18next';
import { initReactI18next } from 'react-i18next';
import { en } from './en.ts';

void i18next.use(initReactI18next).init({
  resources: { en: { translation: en } },
  lng: 'en',
  fallbackLng: 'en',
  interpolation: { escapeValue: false },
  returnNull: false,
  showSupportNotice: false,
});

export { i18next as i18n };
export {
  clock,
  dayName,
  distance,
  duration,
  mass,
  massUnit,
  money,
  number,
  relative,
  showUnits,
  weight,
} from './format.ts';
export { overWords } from './over.ts';
