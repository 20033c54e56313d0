import { ALONE_MS, Awaited } from './awaited.ts';
import { Burst, GAP_MS } from './burst.ts';

/** FNC1 as scanners that type send it: Ctrl and the right bracket. */
const GROUP_SEPARATOR = '\u001d';

interface Listener {
  /** Answers `false` where the code is not for it: whoever listens behind it hears of it then. */
  onScan: (text: string) => unknown;
  /** Whether it hears only what nobody else awaits. */
  behind: boolean;
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
const awaited = new Awaited();
/** What a person moved to by Tab, so that Enter and Space are meant for it. */
let byTab: EventTarget | null = null;
let tabbedAt = -Infinity;
/** Milliseconds within which the focus follows the key. */
const FOLLOWS_MS = 100;
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

function stop(event: Event): void {
  event.preventDefault();
  event.stopImmediatePropagation();
}

function hear(text: string): void {
  for (const { onScan } of [...scanListeners].reverse()) if (onScan(text) !== false) break;
}

/** A key outside of fields while a step awaits a scan: it is a scanner's, unless a person moved to something by Tab. */
function onAwaitedKey(event: KeyboardEvent, key: string): void {
  clearTimeout(timer);
  if (key === ' ' && event.target === byTab && awaited.idle(event.timeStamp)) return;
  const typed = awaited.press({ key, at: event.timeStamp });
  if (typed.kind === 'end') {
    if (key === 'Tab') tabbedAt = event.timeStamp;
    else if (event.target !== byTab) stop(event);
    return;
  }
  stop(event);
  if (typed.kind === 'code') return hear(typed.text);
  timer = setTimeout(() => {
    const single = awaited.alone();
    if (single !== null) runShortcut(single);
  }, ALONE_MS);
}

/** A key held down: no scanner does that. A shortcut goes on, and nothing is pressed again and again. */
function onHeldKey(event: KeyboardEvent, key: string): void {
  if (key === 'Tab') return;
  clearTimeout(timer);
  awaited.clear();
  stop(event);
  if (key.length === 1) runShortcut(key);
}

function onKeyDown(event: KeyboardEvent): void {
  const fnc1 = event.ctrlKey && event.key === ']';
  if (!fnc1 && (event.ctrlKey || event.metaKey || event.altKey)) return;
  const key = fnc1 ? GROUP_SEPARATOR : event.key;
  // Between the letters of a scanner that types.
  if (key === 'Shift' || key === 'CapsLock') return;
  const typing = key.length === 1 || key === 'Enter' || key === 'Tab';
  if (typing && !fieldOf(event.target) && scanListeners.some((l) => !l.behind)) {
    burst.clear();
    if (event.repeat) onHeldKey(event, key);
    else onAwaitedKey(event, key);
    return;
  }
  awaited.clear();
  // A key held down repeats itself faster than anybody types; no scanner does that.
  if (event.repeat && burst.length === 0 && !fieldOf(event.target)) return runShortcut(key);
  if (key.length > 1 && key !== 'Enter' && key !== 'Tab') {
    burst.clear();
    if (!fieldOf(event.target)) runShortcut(key);
    return;
  }
  clearTimeout(timer);
  const field = fieldOf(event.target);
  if (burst.length === 0) before = field ? { field, text: field.value } : null;
  const heard = burst.press({ key, at: event.timeStamp });
  if (burst.length === 1) before = field ? { field, text: field.value } : null;
  if (heard.kind === 'scan') {
    stop(event);
    if (before) setText(before.field, before.text);
    hear(heard.text);
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
    stop(event);
  }
  if (fnc1) event.preventDefault();
  timer = setTimeout(() => {
    const single = burst.quiet();
    if (single.kind === 'key' && !field) runShortcut(single.key);
  }, GAP_MS + 10);
}

function onFocus({ target, timeStamp }: FocusEvent): void {
  byTab = timeStamp - tabbedAt < FOLLOWS_MS ? target : null;
}

let listening = false;

function listen(): void {
  if (listening || typeof document === 'undefined') return;
  listening = true;
  document.addEventListener('keydown', onKeyDown, { capture: true });
  document.addEventListener('focusin', onFocus, { capture: true });
  document.addEventListener('pointerdown', () => (byTab = null), { capture: true });
}

/**
 * Hears scans until the returned function is called; the one that came last hears alone, unless it says that a code is
 * not for it, and those `behind` only when nobody else does.
 */
export function hearScans(onScan: Listener['onScan'], behind: boolean): () => void {
  listen();
  const listener = { onScan, behind };
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
