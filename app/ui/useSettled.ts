import { useEffect, useState } from 'react';

/** So long nobody types before it is asked for. */
const SETTLES_MS = 150;

/** A text once nobody has typed for a moment. */
export function useSettled(text: string): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), SETTLES_MS);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}
