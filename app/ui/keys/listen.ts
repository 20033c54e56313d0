import { flushSync } from 'react-dom';
import { Awaited, FORGET_MS } from './awaited.ts';
import { Burst, type Heard } from './burst.ts';
import type { Press } from './press.ts';
import { scannerHere } from './scanner.ts';

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

const burst = new Burst(scannerHere);
const awaited = new Awaited(scannerHere);
/** Takes every typed key while a scanner is tried. */
let recorder: ((press: Press) => void) | null = null;
let recordedAt = -Infinity;
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

/** Each as if the one before had been drawn already: three steps down are three rows, however quickly they were typed. */
function runShortcuts(keys: readonly string[]): void {
  for (const key of keys) flushSync(() => runShortcut(key));
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
    const quiet = awaited.quiet();
    if (quiet?.kind === 'code') hear(quiet.text);
    else if (quiet) runShortcut(quiet.text);
  }, awaited.waitMs);
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
  if (typing && recorder && !fieldOf(event.target)) {
    // Enter or Tab with nothing before them are a person's, who moves on the page.
    const begun = event.timeStamp - recordedAt <= FORGET_MS;
    if (!begun && key.length > 1) return;
    recordedAt = event.timeStamp;
    stop(event);
    return recorder({ key, at: event.timeStamp });
  }
  if (typing && !fieldOf(event.target) && scanListeners.some((l) => !l.behind)) {
    burst.giveUp();
    if (event.repeat) onHeldKey(event, key);
    else onAwaitedKey(event, key);
    return;
  }
  awaited.clear();
  // A key held down repeats itself faster than anybody types; no scanner does that. Nor does it send arrows or Escape.
  const held = event.repeat && !fieldOf(event.target);
  if (held || !typing) {
    clearTimeout(timer);
    const keys = [...burst.giveUp(), key];
    if (!fieldOf(event.target)) runShortcuts(keys);
    return;
  }
  clearTimeout(timer);
  const field = fieldOf(event.target);
  const { before: left, heard } = burst.press({ key, at: event.timeStamp });
  if (!field) runShortcuts(left);
  if (burst.length === 1) before = field ? { field, text: field.value } : null;
  if (heard.kind !== 'waiting') return onHeard(heard, field, event);
  // A space of a scan must not press what has the focus.
  if (heard.burst && !field) stop(event);
  if (fnc1) event.preventDefault();
  timer = setTimeout(() => onHeard(burst.quiet(), field), burst.waitMs);
}

/** What a burst turned out to be; with the event of the key that ended it, where one did. */
function onHeard(heard: Heard, field: Field | null, event?: KeyboardEvent): void {
  if (heard.kind === 'scan') {
    if (event) stop(event);
    if (before) setText(before.field, before.text);
    return hear(heard.text);
  }
  if (heard.kind !== 'keys' || field) return;
  // Enter on something that can be pressed presses it, as always.
  const pressable =
    event?.target instanceof HTMLElement &&
    event.target.closest('button, a, [role="button"], [role="link"], [role="tab"], [role="checkbox"]');
  runShortcuts(pressable ? heard.keys.slice(0, -1) : heard.keys);
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

/** Gives every key typed outside of fields to `onPress` alone, until the returned function is called. */
export function recordKeys(onPress: (press: Press) => void): () => void {
  listen();
  recorder = onPress;
  recordedAt = -Infinity;
  return () => {
    if (recorder === onPress) recorder = null;
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
