/** Deeper than anything that we are asked: a body nested further is no request of ours. */
const DEEPEST = 60;

/** Something in a request that no field of ours holds, at its path. */
export interface Hostile {
  path: string;
  message: string;
}

/**
 * Finds text that no database column can hold (a NUL, half of a surrogate pair) and nesting beyond all measure in a
 * parsed request, before anything works with it.
 *
 * @returns the first place, or null where all is well
 */
export function hostileText(value: unknown): Hostile | null {
  const waiting: { value: unknown; path: string; depth: number }[] = [{ value, path: '', depth: 0 }];
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    const { value: found, path, depth } = at;
    if (typeof found === 'string') {
      const message = wrongText(found);
      if (message) return { path, message };
    } else if (found !== null && typeof found === 'object') {
      if (depth >= DEEPEST) return { path: path.slice(0, 200), message: `nested deeper than ${DEEPEST} levels` };
      const inside = (key: string) => (path ? `${path}.${key}` : key);
      for (const [key, part] of Object.entries(found)) {
        if (wrongText(key)) return { path, message: 'a name with a character that text cannot hold' };
        waiting.push({ value: part, path: inside(key), depth: depth + 1 });
      }
    }
  }
  return null;
}

function wrongText(text: string): string | null {
  if (text.includes('\u0000')) return 'text without the character NUL (U+0000)';
  return !/\p{Surrogate}/u.test(text) ? null : 'well-formed text (it holds half of a surrogate pair)';
}
