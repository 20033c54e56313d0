/**
 * Collects what is typed until a field is there to take it: whoever opens a field by a key types on at once.
 *
 * @returns ends the collecting, and answers with what was typed
 */
export function collectKeys(): () => string {
  let typed = '';
  const take = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return;
    if (event.key === 'Backspace') typed = typed.slice(0, -1);
    else if (event.key.length === 1) typed += event.key;
    else return;
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  // On the window, in front of all who listen on the document.
  window.addEventListener('keydown', take, true);
  return () => {
    window.removeEventListener('keydown', take, true);
    return typed;
  };
}
