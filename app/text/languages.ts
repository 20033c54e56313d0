import type { Language } from '@hand-relay/contract';
import { en } from './en.ts';
import type { Some } from './same.ts';

/** A language of the screens: what it calls itself, how it writes numbers and days, where its texts are. */
interface Spoken {
  readonly name: string;
  readonly locale: string;
  /** Read when somebody asks for it: a device fetches no texts that nobody reads there. */
  readonly texts: () => Promise<Some<typeof en>>;
}

/**
 * Every language of the contract. Another one is a file of texts, a row here and its documents' words on the server;
 * until all of it is written, what it lacks is read in English and listed by `words.test.ts`.
 */
export const spoken: Record<Language, Spoken> = {
  en: { name: 'English', locale: 'en-GB', texts: () => Promise.resolve(en) },
  de: { name: 'Deutsch', locale: 'de-DE', texts: () => import('./de.ts').then((file) => file.de) },
};
