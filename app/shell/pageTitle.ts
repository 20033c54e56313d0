import { useEffect } from 'react';

const PRODUCT = 'Hand Relay';
/** Titles of the pages that are shown, the one that came last at the end: beside a list stands what was opened from it. */
const titles: { title: string }[] = [];

const show = () => {
  const title = titles.findLast((t) => t.title !== '')?.title;
  document.title = title ? `${title} · ${PRODUCT}` : PRODUCT;
};

/** Names the browser's tab after the page, so that tabs and the history can be told apart. */
export function usePageTitle(title: string): void {
  useEffect(() => {
    if (typeof document === 'undefined') return undefined;
    const own = { title };
    titles.push(own);
    show();
    return () => {
      titles.splice(titles.indexOf(own), 1);
      show();
    };
  }, [title]);
}
