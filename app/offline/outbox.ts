import { outboxNames, MOST_IN_OUTBOX } from '@hand-relay/contract';
import { remember, rowsOf, unanswered, type Rows } from '../deviceCache/index.ts';
import type { Trouble } from '../state/index.ts';
import type { After, Entry, Rejected } from './entry.ts';
import type { TabNews, Tabs } from './tabs.ts';

export interface OutboxState {
  entries: readonly Entry[];
  lost: readonly Rejected[];
  /** False once a call came to nothing. */
  reachable: boolean;
  /** Whether a server was there, but had a fault or too much to do. */
  fault: boolean;
  /** False once the device could not keep something: what waits lasts only as long as the page is open. */
  keeps: boolean;
}

/** A call that was kept: what is asked, by which key, and how long ago it was done. */
export interface OutboxCall {
  ask: Entry['ask'];
  key: string;
  agoMs: number;
}
export type Answered = { data: unknown } | { error: Trouble };

export interface OutboxOptions {
  /**
   * Sends what was done once, in order, each with the key that makes a repeat harmless, and how long ago it was done.
   * Answers in the same order, and may stop before the last.
   */
  send: (calls: readonly OutboxCall[]) => Promise<Answered[]>;
  /**
   * Called when everything of a run, or a count, was sent: reads it again before its entries go. The reading must begin
   * with this call; false where the server did not answer, and the entries stay.
   */
  readAgain: (id: string, what: 'run' | 'count') => Promise<boolean>;
  /** Tells the server what was not taken, so that the Desk knows too. */
  report: (run: string, lost: Rejected) => Promise<void>;
  now: () => number;
  outbox?: Rows<Entry>;
  lost?: Rows<Rejected>;
  /** Other tabs of the device: what one of them keeps, all show. */
  tabs?: Tabs;
  /** Milliseconds between tries without a server. */
  retryMs?: number;
  /** Milliseconds after which a run is read again whose pick was not gone on with. */
  laterMs?: number;
}

/** Called with each answer; returns whether it was shown to the person at the screen. */
type Listener = (
  event: { kind: 'answer'; entry: Entry; data: unknown } | { kind: 'lost'; entry: Entry; trouble: Trouble },
) => boolean;

/** What is refused so soon is said on the card, where somebody looks at it. */
const SAID_MS = 10_000;
/** Under this the device remembers when something was last done on it. */
export const LAST_DONE = 'last-done';
/** So many kept, and what is sent of them is drawn only now and then. */
const MANY = 20;
const SOON_MS = 150;
/** Failures of the server at one call after which it becomes a task. */
const MOST_FAILURES = 5;
const LATER_MS = 4_000;
/** Tries at most so far apart. */
const SLOWEST_MS = 15_000;

/** Whether an input was taken and the pick goes on. */
const isBetween = ({ ask }: Entry, answer: Answered | undefined): boolean =>
  ask.name === 'runInput' &&
  answer !== undefined &&
  'data' in answer &&
  (answer.data as { verdict?: string } | null)?.verdict === 'accepted';

/**
 * What was done without the server, or before it answered: kept on the device, sent in order as soon as may be, each
 * once. What the server refuses becomes a task, and whatever comes after it goes on.
 */
export class Outbox {
  private state: OutboxState = { entries: [], lost: [], reachable: true, fault: false, keeps: true };
  private readonly watchers = new Set<() => void>();
  private readonly listeners = new Set<Listener>();
  private person: string | null = null;
  private pumping: Promise<void> | null = null;
  private asked = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private saying: ReturnType<typeof setTimeout> | undefined;
  private pause: number;
  private lastSeq = 0;
  private readonly offset = Math.floor(Math.random() * 1000);
  /** How often the server failed at a call, by its place. */
  private readonly failed = new Map<number, number>();
  /** Runs in the middle of a pick, which are read again later. */
  private readonly later = new Map<string, ReturnType<typeof setTimeout>>();
  /** Runs of which everything was sent, and that could not be read since. */
  private readonly unread = new Set<string>();
  private readonly rows: Rows<Entry>;
  private readonly lostRows: Rows<Rejected>;

  constructor(private readonly options: OutboxOptions) {
    this.rows = options.outbox ?? rowsOf<Entry>('outbox');
    this.lostRows = options.lost ?? rowsOf<Rejected>('lost');
    this.pause = options.retryMs ?? 1500;
    options.tabs?.listen((news) => this.hear(news));
  }

  /** Reads what an earlier page left, and sends what is this person's. Who else used the device keeps theirs here. */
  async start(person: string): Promise<void> {
    this.person = person;
    const [kept, lost] = [await this.rows.all(), await this.lostRows.all()];
    const known = new Set(this.state.entries.map((e) => e.seq));
    const entries = [...kept.filter((e) => !known.has(e.seq)), ...this.state.entries].sort((a, b) => a.seq - b.seq);
    this.lastSeq = Math.max(this.lastSeq, entries.at(-1)?.seq ?? 0);
    this.set({ entries, lost });
    for (const run of new Set(entries.filter((e) => e.sent).map((e) => e.ask.id))) await this.read(run);
    void this.pump();
  }

  /** Whoever was here signs out: what is theirs stays and waits for them. */
  stop(): void {
    this.person = null;
    clearTimeout(this.timer);
  }

  readonly snapshot = (): OutboxState => this.state;

  readonly watch = (watcher: () => void): (() => void) => {
    this.watchers.add(watcher);
    return () => void this.watchers.delete(watcher);
  };

  /** Calls a listener with each answer, and with what was rejected. */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  }

  /** Keeps something that was done and sends it when its turn comes. */
  add(entry: Omit<Entry, 'seq' | 'sent' | 'person'>): void {
    // Ascending whatever the clock does: the order of doing is the order of sending.
    // Two tabs that do something in one millisecond do not take each other's place.
    this.lastSeq = Math.max(this.lastSeq + 1, this.options.now() * 1000 + this.offset);
    const made: Entry = { ...entry, seq: this.lastSeq, sent: false, person: this.person ?? '' };
    this.set({ entries: [...this.state.entries, made] });
    remember(LAST_DONE, String(this.options.now()));
    void this.stored(this.rows.put(made));
    this.options.tabs?.post({ kind: 'entry', entry: made });
    // Out of reach, the next try comes by itself: a try with every scan would cost time and battery for nothing.
    if (this.state.reachable) void this.pump();
  }

  /** Adds tasks for what the server had taken and does not have any more. */
  async addLost(person: string, list: readonly ({ run: string } & Omit<Rejected, 'at' | 'person'>)[]): Promise<void> {
    for (const { run, ...lost } of list) await this.addTask(run, { ...lost, person }, true);
  }

  /** A task was done: what the server did not take is put right. */
  settle(id: string): void {
    this.set({ lost: this.state.lost.filter((l) => l.id !== id) });
    void this.lostRows.remove(id);
    this.options.tabs?.post({ kind: 'settled', id });
  }

  /** Shows what another tab of the device kept, sent or lost. */
  private hear(news: TabNews): void {
    const { entries, lost } = this.state;
    if (news.kind === 'gone') {
      this.set({ entries: entries.filter((e) => e.seq !== news.seq) });
      return this.readSent(entries.find((e) => e.seq === news.seq)?.ask.id);
    }
    if (news.kind === 'settled') return this.set({ lost: lost.filter((l) => l.id !== news.id) });
    if (news.kind === 'task') return this.set({ lost: [...lost.filter((l) => l.id !== news.lost.id), news.lost] });
    const { entry } = news;
    this.lastSeq = Math.max(this.lastSeq, entry.seq);
    // The run was read again here already: what was sent of it is in it.
    if (entry.sent && !entries.some((e) => e.seq === entry.seq)) return;
    this.set({ entries: [...entries.filter((e) => e.seq !== entry.seq), entry].sort((a, b) => a.seq - b.seq) });
    this.readSent(entry.ask.id);
  }

  /** Reads a run again of which another tab has sent all that was done. */
  private readSent(run: string | undefined): void {
    const own = this.state.entries.filter((e) => e.ask.id === run);
    if (run !== undefined && own.length > 0 && own.every((e) => e.sent)) void this.read(run);
  }

  /** Sends what waits, one after the other, until nothing does or nobody answers; resolves then. */
  pump(): Promise<void> {
    if (this.person === null) return Promise.resolve();
    // Asked while it is at work, it looks once more: what was added as it ended must not wait for the next call.
    this.asked = true;
    clearTimeout(this.timer);
    this.pumping ??= this.sendWhileAsked().finally(() => (this.pumping = null));
    return this.pumping;
  }

  /**
   * Waits until the server has heard of all that was done in a run here: what concerns the run as a whole, and goes
   * straight to the server, must not overtake it. False where something still waits, as nobody answers.
   */
  async delivered(run: string): Promise<boolean> {
    const waits = () => this.state.entries.some((e) => !e.sent && e.ask.id === run);
    if (waits()) await this.pump();
    return !waits();
  }

  private async sendWhileAsked(): Promise<void> {
    while (this.asked) {
      this.asked = false;
      await alone(() => this.sendAll());
    }
  }

  private async sendAll(): Promise<void> {
    for (;;) {
      const waiting = this.state.entries.filter((e) => !e.sent && e.person === this.person);
      const [first] = waiting;
      // What the server failed at is sent alone: it says so of this call then, and of no other.
      const some = first && this.failed.has(first.seq) ? [first] : inOneCall(waiting);
      if (!first) break;
      if (!(await this.sendSome(some))) return;
    }
    for (const run of this.unread) if (!(await this.read(run))) return;
  }

  /** Sends several at once; false where the next try comes later. */
  private async sendSome(entries: readonly Entry[]): Promise<boolean> {
    const now = this.options.now();
    const answers = await this.options.send(
      entries.map(({ ask, key, seq }) => ({ ask, key, agoMs: Math.max(0, now - seq / 1000) })),
    );
    for (const [i, answer] of answers.entries()) {
      const entry = entries[i]!;
      if ('error' in answer && waits(answer.error) && !this.failsForGood(entry, answer.error)) {
        const { code } = answer.error;
        this.set({ reachable: code === 'not-signed-in', fault: code !== 'network' && code !== 'not-signed-in' });
        this.tryLater();
        return false;
      }
      this.failed.delete(entry.seq);
      this.pause = this.options.retryMs ?? 1500;
      if (!this.state.reachable || this.state.fault) this.set({ reachable: true, fault: false });
      await this.settleOne(entry, answer);
    }
    for (const run of new Set(entries.map((e) => e.ask.id))) {
      if (this.state.entries.some((e) => !e.sent && e.ask.id === run)) continue;
      const between = entries.every((e, i) => e.ask.id !== run || isBetween(e, answers[i]));
      if (between) this.readLater(run);
      else await this.read(run);
    }
    return true;
  }

  /** In the middle of a pick the device knows all that the server does: the run is read when the pick is done, or the picker waits. */
  private readLater(run: string): void {
    clearTimeout(this.later.get(run));
    this.later.set(
      run,
      setTimeout(() => void this.read(run), this.options.laterMs ?? LATER_MS),
    );
  }

  /** Whether the server failed at a call so often that it will again: what follows must not wait behind it for ever. */
  private failsForGood({ seq }: Entry, { status }: Trouble): boolean {
    if (status !== 500) return false;
    const times = (this.failed.get(seq) ?? 0) + 1;
    this.failed.set(seq, times);
    return times >= MOST_FAILURES;
  }

  private async settleOne(entry: Entry, answer: Answered): Promise<void> {
    if ('error' in answer) return this.lose(entry, answer.error);
    const { verdict } = (answer.data ?? {}) as { verdict?: string };
    if (entry.verdict !== null && verdict !== undefined && verdict !== entry.verdict)
      return this.lose(entry, { code: 'pick-done', facts: {}, fields: [], requestId: '', status: 409 });
    const sent = { ...entry, sent: true };
    this.set({ entries: this.state.entries.map((e) => (e.seq === entry.seq ? sent : e)) }, 'soon');
    // Nobody waits for it: sent once more it would be known by its key.
    void this.stored(this.rows.put(sent));
    this.options.tabs?.post({ kind: 'entry', entry: sent });
    for (const listener of this.listeners) listener({ kind: 'answer', entry, data: answer.data });
  }

  private tryLater(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.pump(), this.pause);
    this.pause = Math.min(SLOWEST_MS, this.pause * 2);
  }

  /** The run as the server has it takes the place of what the device thought; false where it could not be read. */
  private async read(run: string): Promise<boolean> {
    clearTimeout(this.later.get(run));
    this.later.delete(run);
    const seen = this.state.entries.filter((e) => e.sent && e.ask.id === run).map((e) => e.seq);
    const counted = this.state.entries.some((e) => e.ask.id === run && e.ask.name === 'takeCount');
    if (!(await this.options.readAgain(run, counted ? 'count' : 'run'))) {
      this.unread.add(run);
      this.tryLater();
      return false;
    }
    this.unread.delete(run);
    this.set({ entries: this.state.entries.filter((e) => !seen.includes(e.seq)) });
    for (const seq of seen) await this.rows.remove(seq);
    return true;
  }

  private async lose(entry: Entry, trouble: Trouble): Promise<void> {
    this.set({ entries: this.state.entries.filter((e) => e.seq !== entry.seq) });
    await this.rows.remove(entry.seq);
    this.options.tabs?.post({ kind: 'gone', seq: entry.seq });
    const said = [...this.listeners].map((listener) => listener({ kind: 'lost', entry, trouble })).includes(true);
    // Where goods changed hands, and it was not said at once on the card, somebody has to put it right.
    if (!handled(entry.after) || (said && this.options.now() - entry.seq / 1000 < SAID_MS)) return;
    const id = `${entry.ask.id} ${entry.after?.kind === 'pick' ? entry.after.pick : entry.after?.kind}`;
    const { about, person, ask } = entry;
    // The Desk hears of what is in somebody's hands; a count that was not taken is asked again by itself.
    await this.addTask(ask.id, { id, about, person, trouble }, ask.name !== 'takeCount');
  }

  /** One task for each thing, whatever was tried with it, and told to the Desk once. */
  private async addTask(
    run: string,
    { id, about, person, trouble }: Omit<Rejected, 'at'>,
    tellDesk: boolean,
  ): Promise<void> {
    const before = this.state.lost.find((l) => l.id === id);
    const lost: Rejected = {
      id,
      person,
      at: before?.at ?? this.options.now(),
      about: { ...about, units: Math.max(about.units, before?.about.units ?? 0) },
      trouble: before?.trouble ?? trouble,
    };
    this.set({ lost: [...this.state.lost.filter((l) => l.id !== id), lost] });
    await this.stored(this.lostRows.put(lost));
    this.options.tabs?.post({ kind: 'task', lost });
    if (!before && tellDesk) await this.options.report(run, lost);
  }

  /** Whether the device keeps what it is given is known only by trying. */
  private async stored(write: Promise<boolean>): Promise<void> {
    const keeps = await write;
    if (keeps !== this.state.keeps) this.set({ keeps });
  }

  /**
   * Changes the state and says so: at once, or soon where many changes follow one another and drawing each would take
   * longer than making them.
   */
  private set(part: Partial<OutboxState>, say: 'now' | 'soon' = 'now'): void {
    this.state = { ...this.state, ...part };
    if (say === 'soon' && this.state.entries.length > MANY) {
      this.saying ??= setTimeout(() => this.say(), SOON_MS);
      return;
    }
    this.say();
  }

  private say(): void {
    clearTimeout(this.saying);
    this.saying = undefined;
    for (const watcher of this.watchers) watcher();
  }
}

/** What goes to the server at once: as many as it takes, up to what goes by itself, such as a photo. */
function inOneCall(waiting: readonly Entry[]): readonly Entry[] {
  const alone = waiting.findIndex((e) => !(outboxNames as readonly string[]).includes(e.ask.name));
  return waiting.slice(0, alone < 0 ? MOST_IN_OUTBOX : Math.max(1, Math.min(alone, MOST_IN_OUTBOX)));
}

/** Whether goods changed hands. */
const handled = (after: After | null): boolean =>
  after !== null && (after.kind === 'pick' ? after.state !== 'open' : ['left', 'back', 'counted'].includes(after.kind));

/** What says nothing about the call itself: it waits. */
const waits = (trouble: Trouble): boolean => unanswered(trouble) || trouble.code === 'not-signed-in';

/** One tab of a browser sends at a time, so that the order of doing holds across them. */
async function alone(work: () => Promise<void>): Promise<void> {
  if (typeof navigator !== 'undefined' && navigator.locks) await navigator.locks.request('hand-relay-outbox', work);
  else await work();
}
