import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { outboxCall, MOST_IN_OUTBOX, type RunDetail } from '@hand-relay/contract';
import { freshProgress } from '@hand-relay/core/handling/picking';
import type { Trouble } from '../state/index.ts';
import type { Rows } from '../deviceCache/index.ts';
import type { Entry, Rejected } from './entry.ts';
import { Outbox, type OutboxCall, type OutboxOptions } from './outbox.ts';
import { missingAfterRestore } from './restored.ts';
import type { TabNews, Tabs } from './tabs.ts';

/** What a device keeps: it outlives the page. */
function keeping<T extends { seq: number } | { id: string }>(): Rows<T> & { rows: Map<number | string, T> } {
  const rows = new Map<number | string, T>();
  return {
    rows,
    all: () => Promise.resolve([...rows.values()]),
    put: (row) => Promise.resolve(!!rows.set('seq' in row ? row.seq : row.id, structuredClone(row))),
    remove: (key) => Promise.resolve(rows.delete(key)),
  };
}

const network: Trouble = { code: 'network', facts: {}, fields: [], requestId: '', status: 0 };
const taken: Trouble = { code: 'run-of-another', facts: { run: '0001' }, fields: [], requestId: '', status: 409 };

/** A server that takes each key once, is out of reach now and then, and may lose the answer on its way back. */
function device() {
  const there = {
    heard: [] as string[],
    keys: new Set<string>(),
    reachable: true,
    loseAnswer: false,
    calls: 0,
    refuse: new Set<string>(),
  };
  const [outbox, lost] = [keeping<Entry>(), keeping<Rejected>()];
  const told: Rejected[] = [];
  const read: string[] = [];
  let clock = 1_000_000;
  const options: OutboxOptions = {
    send: async (calls) => {
      await Promise.resolve();
      if (!there.reachable) return [{ error: network }];
      there.calls += 1;
      const answers = calls.map(({ ask, key }) => {
        const what = String((ask.body as { what: string }).what);
        if (there.refuse.has(what)) return { error: taken };
        if (!there.keys.has(key)) there.heard.push(what);
        there.keys.add(key);
        return { data: { verdict: what.startsWith('between') ? 'accepted' : 'done' } };
      });
      if (!there.loseAnswer) return answers;
      // The connection broke somewhere among the answers: the server heard them all.
      there.loseAnswer = false;
      return [...answers.slice(0, Math.floor(answers.length / 2)), { error: network }];
    },
    readAgain: (run) => Promise.resolve(read.push(run) > 0),
    report: (_, l) => Promise.resolve(void told.push(l)),
    now: () => clock,
    outbox,
    lost,
    retryMs: 5,
  };
  const open = () => new Outbox(options);
  const does = (box: Outbox, what: string, units = 3) =>
    box.add({
      key: what,
      ask: { name: 'runInput', id: 'r1', body: { what } },
      verdict: 'done',
      after: { kind: 'pick', pick: what, progress: freshProgress, state: 'done', picked: units },
      about: { run: '0001', bin: 'A-01-1', item: 'Jar', units },
    });
  const settled = () => new Promise((resolve) => setTimeout(resolve, 30));
  return { there, options, open, does, outbox, lost, told, read, settled, wait: (ms: number) => void (clock += ms) };
}

/** Rows of the outbox as each release kept them. */
const releases = readdirSync(join(__dirname, '../../releases'), { withFileTypes: true })
  .filter((f) => f.isDirectory())
  .map(({ name }) => [
    name,
    JSON.parse(readFileSync(join(__dirname, '../../releases', name, 'outbox.json'), 'utf8')),
  ]) as [string, { entries: Entry[] }][];

/** Tabs that hear each other, a moment later and as copies, as those of a browser do. */
function tabs(count: number): Tabs[] {
  const listeners: ((news: TabNews) => void)[][] = Array.from({ length: count }, () => []);
  return listeners.map((own) => ({
    post: (news) =>
      void Promise.resolve().then(() => {
        for (const other of listeners) if (other !== own) for (const hear of other) hear(structuredClone(news));
      }),
    listen: (listener) => void own.push(listener),
  }));
}

describe('the outbox', () => {
  it('shows in one tab what another keeps, sends it once, and forgets it in both', async () => {
    const d = device();
    const [first, second] = tabs(2).map((of) => new Outbox({ ...d.options, tabs: of })) as [Outbox, Outbox];
    await first.start('pico');
    await second.start('pico');
    d.there.reachable = false;
    d.does(first, 'a');
    d.does(second, 'b');
    d.there.refuse.add('c');
    d.does(first, 'c');
    await d.settled();
    const whatOf = (box: Outbox) =>
      box
        .snapshot()
        .entries.map((e) => e.key)
        .sort();
    expect([whatOf(first), whatOf(second)]).toEqual([
      ['a', 'b', 'c'],
      ['a', 'b', 'c'],
    ]);
    d.wait(60_000);
    d.there.reachable = true;
    // The second tab sends what was done in the first as well.
    await second.pump();
    await d.settled();
    expect(d.there.heard.sort()).toEqual(['a', 'b']);
    expect([whatOf(first), whatOf(second), d.outbox.rows.size]).toEqual([[], [], 0]);
    // What was not taken is a task in both, until one of them settles it.
    expect([first, second].map((box) => box.snapshot().lost.length)).toEqual([1, 1]);
    expect(d.told).toHaveLength(1);
    first.settle(first.snapshot().lost[0]!.id);
    await d.settled();
    expect(second.snapshot().lost).toEqual([]);
  });

  it.each(releases)(
    'sends what release %s kept, in its order, as this version of the contract reads it',
    async (_, left) => {
      const d = device();
      for (const entry of left.entries) await d.outbox.put(entry);
      const sent: OutboxCall[] = [];
      const box = new Outbox({
        ...d.options,
        send: (calls) => {
          sent.push(...calls);
          return Promise.resolve(calls.map((_, i) => ({ data: { verdict: left.entries[i]!.verdict } })));
        },
      });
      await box.start(left.entries[0]!.person);
      await d.settled();
      expect(sent.map((c) => c.key)).toEqual(left.entries.map((e) => e.key));
      for (const { ask, key, agoMs } of sent)
        outboxCall.parse({ name: ask.name, id: ask.id, key, ago: Math.round(agoMs), body: ask.body ?? {} });
      expect(box.snapshot()).toMatchObject({ entries: [], lost: [] });
    },
  );

  it('makes a task of what the server fails at five times, with its request id, and sends the rest', async () => {
    const d = device();
    const fault: Trouble = { ...network, code: 'unexpected', status: 500, requestId: 'req-7' };
    let failures = 0;
    const box = new Outbox({
      ...d.options,
      send: async (calls) => {
        const at = calls.findIndex((c) => (c.ask.body as { what: string }).what === 'broken');
        if (at < 0) return d.options.send(calls);
        failures += 1;
        // What stands before it is taken; the list ends with what failed.
        return [...(at > 0 ? await d.options.send(calls.slice(0, at)) : []), { error: fault }];
      },
    });
    await box.start('pico');
    for (const what of ['good', 'broken', 'after']) d.does(box, what);
    for (let i = 0; i < 40 && box.snapshot().entries.length > 0; i++) await d.settled();
    expect(failures).toBe(5);
    expect(d.there.heard).toEqual(['good', 'after']);
    expect(box.snapshot()).toMatchObject({
      entries: [],
      reachable: true,
      fault: false,
      lost: [{ trouble: { code: 'unexpected', requestId: 'req-7' }, about: { bin: 'A-01-1', units: 3 } }],
    });
    expect(d.told).toHaveLength(1);
  });

  it('makes tasks of what a restored server does not know any more, told to the Desk once', async () => {
    const run = (picked: number[]): RunDetail =>
      ({
        run: { id: 'r1', number: '0042' },
        picks: picked.map((units, i) => ({
          picked: units,
          step: { id: `p${i}`, bin: `A-0${i}`, item: { name: `Item ${i}` } },
        })),
      }) as unknown as RunDetail;
    const units = (list: ReturnType<typeof missingAfterRestore>) => list.map((l) => [l.id, l.about.units]);
    expect(units(missingAfterRestore(run([2, 3, 0]), null))).toEqual([
      ['r1 p0', 2],
      ['r1 p1', 3],
    ]);
    expect(units(missingAfterRestore(run([2, 3, 0]), run([2, 1, 0])))).toEqual([['r1 p1', 2]]);
    expect(missingAfterRestore(run([2, 3, 0]), run([2, 3, 1]))).toEqual([]);
    const d = device();
    const box = d.open();
    await box.start('pico');
    const lost = missingAfterRestore(run([2]), null);
    await Promise.all([box.addLost('pico', lost), box.addLost('pico', lost)]);
    expect(box.snapshot().lost).toHaveLength(1);
    expect(d.told).toEqual([
      expect.objectContaining({ person: 'pico', trouble: expect.objectContaining({ code: 'restored' }) }),
    ]);
    expect([...d.lost.rows.keys()]).toEqual(['r1 p0']);
  });

  it('brings every thing that was done to the server once and in order, through gaps, lost answers and reloads', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('do', 'gone', 'back', 'lose', 'reload'), { minLength: 1, maxLength: 25 }),
        async (steps) => {
          const d = device();
          let box = d.open();
          await box.start('pico');
          const done: string[] = [];
          for (const step of steps) {
            if (step === 'do') {
              done.push(`k${done.length}`);
              d.does(box, done.at(-1)!);
            } else if (step === 'gone') d.there.reachable = false;
            else if (step === 'back') d.there.reachable = true;
            else if (step === 'lose') d.there.loseAnswer = true;
            else {
              // Whatever the page still had in hand is gone with it; what it kept is not.
              await d.settled();
              box.stop();
              box = d.open();
              await box.start('pico');
            }
          }
          d.there.reachable = true;
          await box.pump();
          await d.settled();
          await box.pump();
          expect(d.there.heard).toEqual(done);
          expect(box.snapshot().entries).toEqual([]);
          expect(d.outbox.rows.size).toBe(0);
          expect(box.snapshot().lost).toEqual([]);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('reads a run again when a pick of it is done, and in the middle of one only when nothing more comes', async () => {
    const d = device();
    const box = new Outbox({ ...d.options, laterMs: 40 });
    await box.start('pico');
    const scan = (key: string, verdict: 'accepted' | 'done') =>
      box.add({ key, ask: { name: 'runInput', id: 'r1', body: { what: key } }, verdict, after: null, about: null! });
    scan('between 1', 'accepted');
    await d.settled();
    scan('between 2', 'accepted');
    await d.settled();
    // Both were heard, and what they did is still laid over what the server said before them.
    expect([d.there.heard.length, d.read, box.snapshot().entries.map((e) => e.sent)]).toEqual([2, [], [true, true]]);
    scan('done', 'done');
    await d.settled();
    expect([d.read, box.snapshot().entries]).toEqual([['r1'], []]);
    scan('between 3', 'accepted');
    await new Promise((resolve) => setTimeout(resolve, 80));
    expect([d.read, box.snapshot().entries]).toEqual([['r1', 'r1'], []]);
  });

  it('sends what waited in few calls, and what is done now by itself', async () => {
    const d = device();
    const box = d.open();
    await box.start('pico');
    d.does(box, 'now');
    await d.settled();
    expect(d.there.calls).toBe(1);
    d.there.reachable = false;
    const kept = Array.from({ length: 3 * MOST_IN_OUTBOX }, (_, i) => `k${i}`);
    for (const what of kept) d.does(box, what);
    await d.settled();
    d.there.reachable = true;
    await box.pump();
    expect(d.there.heard).toEqual(['now', ...kept]);
    expect(d.there.calls).toBe(4);
  });

  it('waits while the server has a fault or too much to do, says which, and throws nothing away', async () => {
    for (const [trouble, fault] of [
      [{ ...network, code: 'too-many', status: 429 }, true],
      [{ ...network, code: 'unexpected', status: 500 }, true],
      [{ ...network, code: 'server-fault', status: 502 }, true],
      [{ ...network, code: 'disk-full', status: 507 }, true],
      [network, false],
    ] as const) {
      const d = device();
      let answers: Trouble | null = trouble;
      const box = new Outbox({
        ...d.options,
        send: (calls) => (answers ? Promise.resolve([{ error: answers }]) : d.options.send(calls)),
      });
      await box.start('pico');
      for (const what of ['one', 'two']) d.does(box, what);
      await d.settled();
      expect(box.snapshot()).toMatchObject({
        reachable: false,
        fault,
        lost: [],
        entries: [{ sent: false }, { sent: false }],
      });
      answers = null;
      await box.pump();
      await d.settled();
      expect(d.there.heard).toEqual(['one', 'two']);
      expect(box.snapshot()).toMatchObject({ reachable: true, fault: false, lost: [], entries: [] });
    }
  });

  it('makes a task of what the server does not take any more, goes on with the rest, and keeps the task over a reload', async () => {
    const d = device();
    const box = d.open();
    await box.start('pico');
    d.there.reachable = false;
    for (const what of ['one', 'two', 'three']) d.does(box, what);
    await d.settled();
    expect(box.snapshot()).toMatchObject({ reachable: false, entries: [{ sent: false }, {}, {}] });
    d.wait(600_000);
    d.there.reachable = true;
    d.there.refuse.add('two');
    await box.pump();
    await d.settled();
    expect(d.there.heard).toEqual(['one', 'three']);
    expect(box.snapshot()).toMatchObject({
      reachable: true,
      entries: [],
      lost: [{ about: { units: 3 }, trouble: taken }],
    });
    expect(d.told).toHaveLength(1);
    box.stop();
    const after = d.open();
    await after.start('pico');
    const [task] = after.snapshot().lost;
    after.settle(task!.id);
    await d.settled();
    expect([after.snapshot().lost, d.lost.rows.size]).toEqual([[], 0]);
  });

  it('says at once what is refused at once, and sends nothing of somebody else', async () => {
    const d = device();
    const box = d.open();
    await box.start('pico');
    const heard: string[] = [];
    const away = box.listen((event) => heard.push(`${event.kind} ${event.entry.key}`) > 0);
    d.there.refuse.add('now');
    d.does(box, 'now');
    await d.settled();
    expect(heard).toEqual(['lost now']);
    expect(box.snapshot().lost).toEqual([]);
    // Nobody looks at the run any more: it stays as a task.
    away();
    d.does(box, 'now');
    await d.settled();
    expect(box.snapshot().lost).toMatchObject([{ id: 'r1 now' }]);
    box.settle('r1 now');
    d.there.reachable = false;
    d.does(box, 'his');
    await d.settled();
    box.stop();
    const hers = d.open();
    d.there.reachable = true;
    await hers.start('suri');
    await d.settled();
    expect(d.there.heard).toEqual([]);
    await hers.start('pico');
    await d.settled();
    expect(d.there.heard).toEqual(['his']);
  });

  it('lets nothing that concerns the whole run overtake what was done in it', async () => {
    const d = device();
    const box = d.open();
    await box.start('pico');
    for (const what of ['bin', 'count', 'place']) d.does(box, what);
    expect(d.there.heard).toEqual([]);
    expect(await box.delivered('r1')).toBe(true);
    expect(d.there.heard).toEqual(['bin', 'count', 'place']);
    d.there.reachable = false;
    d.does(box, 'far');
    expect(await box.delivered('r1')).toBe(false);
    expect(await box.delivered('r2')).toBe(true);
    // Asked for, it is tried at once, not only when the next try is due.
    d.there.reachable = true;
    expect(await box.delivered('r1')).toBe(true);
    expect(d.there.heard.at(-1)).toBe('far');
  });

  it('tells whoever works where the device keeps nothing, sends it all the same, and takes it back once it keeps again', async () => {
    const d = device();
    const kept = d.outbox.put;
    d.outbox.put = () => Promise.resolve(false);
    const box = d.open();
    await box.start('pico');
    expect(box.snapshot().keeps).toBe(true);
    d.does(box, 'loose');
    await d.settled();
    expect([d.there.heard, box.snapshot().keeps]).toEqual([['loose'], false]);
    d.outbox.put = kept;
    d.does(box, 'firm');
    await d.settled();
    expect([d.there.heard, box.snapshot().keeps]).toEqual([['loose', 'firm'], true]);
  });
});
