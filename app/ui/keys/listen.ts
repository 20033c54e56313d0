import { Burst, GAP_MS } from './burst.ts';

/** FNC1 as scanners that type send it: Ctrl and the right bracket. */
const GROUP_SEPARATOR = '\u001d';

interface Listener {
  /** Answers `false` where the code is not for it: whoever listens behind it hears of it then. */
  onScan: (text: string) => unknown;
}

const scanListeners: Listener[] = [];
const shortcuts: { keys: Record<string, () => void> }[] = [];

type Field = HTMLInputElement | HTMLTextAreaElement;

function fieldOf(target: EventTarget | null): Field | null {
  return target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement ? target : null;
}

/** Sets a field's text so that React hears of it. */
function setText(field: Field, text: string): void {
  const prototype = field instanceof HTMLInputElement ? HTMLInputElement.prototype : HTMLTextAreaElement.prototype;
  Object.getOwnPropertyDescriptor(prototype, 'value')!.set!.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

const burst = new Burst();
let before: { field: Field; text: string } | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;

function runShortcut(key: string): void {
  // A sheet takes Escape for itself: what lies under it stays.
  if (key === 'Escape' && document.querySelector('[role="dialog"]')) return;
  for (let i = shortcuts.length - 1; i >= 0; i--) {
    const run = shortcuts[i]!.keys[key];
    if (run) return run();
  }
}

function onKeyDown(event: KeyboardEvent): void {
  const fnc1 = event.ctrlKey && event.key === ']';
  if (!fnc1 && (event.ctrlKey || event.metaKey || event.altKey)) return;
  const key = fnc1 ? GROUP_SEPARATOR : event.key;
  // A key held down repeats itself faster than anybody types; no scanner does that.
  if (event.repeat && burst.length === 0 && !fieldOf(event.target)) return runShortcut(key);
  if (key.length > 1 && key !== 'Enter' && key !== 'Tab') {
    if (key !== 'Shift') {
      burst.clear();
      if (!fieldOf(event.target)) runShortcut(key);
    }
    return;
  }
  clearTimeout(timer);
  const field = fieldOf(event.target);
  if (burst.length === 0) before = field ? { field, text: field.value } : null;
  const heard = burst.press({ key, at: event.timeStamp });
  if (burst.length === 1) before = field ? { field, text: field.value } : null;
  if (heard.kind === 'scan') {
    event.preventDefault();
    event.stopImmediatePropagation();
    if (before) setText(before.field, before.text);
    for (const { onScan } of [...scanListeners].reverse()) if (onScan(heard.text) !== false) break;
    return;
  }
  if (heard.kind === 'key') {
    // Enter on something that can be pressed presses it, as always.
    const pressable =
      event.target instanceof HTMLElement &&
      event.target.closest('button, a, [role="button"], [role="link"], [role="tab"], [role="checkbox"]');
    if (!field && !pressable) runShortcut(heard.key);
    return;
  }
  if (heard.burst && !field) {
    // A space of a scan must not press what has the focus.
    event.preventDefault();
    event.stopImmediatePropagation();
  }
  if (fnc1) event.preventDefault();
  timer = setTimeout(() => {
    const single = burst.quiet();
    if (single.kind === 'key' && !field) runShortcut(single.key);
  }, GAP_MS + 10);
}

let listening = false;

function listen(): void {
  if (listening || typeof document === 'undefined') return;
  listening = true;
  document.addEventListener('keydown', onKeyDown, { capture: true });
}

/**
 * Hears scans until the returned function is called; the one that came last hears alone, unless it says that a code is
 * not for it, and those `behind` only when nobody else does.
 */
export function hearScans(onScan: Listener['onScan'], behind: boolean): () => void {
  listen();
  const listener = { onScan };
  if (behind) scanListeners.unshift(listener);
  else scanListeners.push(listener);
  return () => {
    scanListeners.splice(scanListeners.indexOf(listener), 1);
  };
}

/** Offers shortcuts until the returned function is called; those offered last go before the others. */
export function offerShortcuts(keys: Record<string, () => void>): () => void {
  listen();
  const entry = { keys };
  shortcuts.push(entry);
  return () => {
    shortcuts.splice(shortcuts.indexOf(entry), 1);
  };
}
