const LETTERS = 'abcdefghijklmnopqrstuvwxyz';
/** Letters with marks, each beside the one that a keyboard without marks has for it. */
const MARKED = 'ÀÁÂÃÄÅàáâãäåÇçÈÉÊËèéêëÌÍÎÏìíîïÑñÒÓÔÕÖØòóôõöøÙÚÛÜùúûüÝýÿ';
const UNMARKED = 'AAAAAAAAAAAACCEEEEEEEEIIIIIIIINNOOOOOOOOOOOOUUUUUUUUYYY';
const LEFT_OUT = ' \t\u00a0!"#$%&\'()*+,-./:;<=>?@[\\]^_`{|}~';

/**
 * Characters that count as others, and behind them those that do not count. The database has the same two texts in its
 * function `search_key`: what is found does not depend on the language that a server was installed in.
 */
export const searchFrom = LETTERS + MARKED + LEFT_OUT;
export const searchTo = LETTERS.toUpperCase() + UNMARKED;

const counted = new Map([...searchFrom].map((character, i) => [character, searchTo[i] ?? '']));

/**
 * A text as it is compared in a search: without case, spaces, hyphens and other marks.
 *
 * @returns `PO-77/ä` and `po 77 A` alike as `PO77A`; empty where nothing of it counts
 */
export function searchKey(text: string): string {
  return [...text.replaceAll('ß', 'ss')].map((character) => counted.get(character) ?? character).join('');
}

/** Most words of a search that are looked for one by one. */
const MOST_WORDS = 6;

/**
 * What is looked for: the whole as one, or, where there are several words, all of them in any order.
 *
 * @returns `key` is empty where the text has nothing to look for
 */
export function readSearch(text: string): { key: string; words: string[] } {
  const words = text.split(/\s+/).map(searchKey).filter(Boolean).slice(0, MOST_WORDS);
  return { key: searchKey(text), words };
}
