import { shortReasons } from '@hand-relay/core/handling/picking';
import { languages } from '@hand-relay/contract';
import { distance, mass, number, showLanguage, showUnits, spoken, i18n } from '../text/index.ts';
import { de } from '../text/de.ts';
import type { Check } from '@hand-relay/core/deciding/settings';
import { scansOf } from '../setup/example.ts';
import { en } from '../text/en.ts';
import { words } from '../state/trouble.ts';
import { trailWords } from '../desk/Trail.tsx';
import { relative, weight } from '../text/index.ts';
import { execSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

describe('words', () => {
  it('are there for everything that is journalled', () => {
    const kinds = [
      ...execSync(
        `grep -rhoE "kind: '[a-z-]+'|journalRun.change, run, '[a-z-]+'|'order-(taken|changed)'" ../server/src --include=*.ts`,
        { cwd: __dirname + '/..', encoding: 'utf8' },
      ).matchAll(/'([a-z-]+)'/g),
    ].map((m) => m[1]!);
    const journalled = kinds.filter(
      (k) =>
        k.includes('-') ||
        ['released', 'picked', 'short', 'undone', 'packed', 'unpacked', 'tracking', 'shipped'].includes(k),
    );
    // News that is told, jobs and kinds of print, none of them journalled, and a kind of barcode.
    const strange = ['gs1-128', 'orders-taken', 'count-differs', 'put-back-asked', 'plan-wave', 'host-stream'];
    strange.push('pick-lists', 'order-slips', 'carton-label', 'pallet-label', 'packing-slip');
    expect([...new Set(journalled)].filter((k) => !strange.includes(k) && !(k in en.trail))).toEqual([]);
  });

  it('say one of something as one, wherever a number stands', () => {
    const said = (at: object, path: string): string[] =>
      Object.entries(at).flatMap(([key, value]: [string, object | string]) => {
        if (typeof value === 'object') return said(value, `${path}${key}.`);
        const facts = [...value.matchAll(/\{\{(\w+)/g)].map((m) => [m[1]!, m[1] === 'picker' ? 'Pico' : 1]);
        const one: Record<string, unknown> = { ...Object.fromEntries(facts), count: 1 };
        return [i18n.t(path + key.replace(/_(one|other)$/, ''), one)];
      });
    const many =
      /\b1 (units|orders|lines|pieces|picks|places|carts|cartons|runs|stops|rows|bins|serial numbers|sheets|people|pickers|days)\b/;
    expect(said(en, '').filter((text) => many.test(text))).toEqual([]);
  });

  it('are there for every key that a screen asks for', () => {
    const files = execSync('git ls-files --cached --others --exclude-standard -- "*.ts" "*.tsx"', {
      cwd: `${__dirname}/..`,
      encoding: 'utf8',
    });
    const asked = files
      .split('\n')
      .filter((f) => f && !/^text\/(en|de)/.test(f) && !f.includes('test'))
      .flatMap((f) =>
        [...readFileSync(`${__dirname}/../${f}`, 'utf8').matchAll(/\bt\(\s*'([\w.-]+)'/g)].map((m) => m[1]!),
      );
    expect(asked.length).toBeGreaterThan(400);
    expect([...new Set(asked)].filter((key) => !i18n.exists(key) && !i18n.exists(key, { count: 2 }))).toEqual([]);
  });

  it('are all used: none is left from a screen that is gone', () => {
    const files = execSync('git ls-files --cached --others --exclude-standard -- "*.ts" "*.tsx"', {
      cwd: `${__dirname}/..`,
      encoding: 'utf8',
    })
      .split('\n')
      .filter((f) => f && !/^text\/(en|de)/.test(f) && !f.includes('test'));
    const code = files.map((f) => readFileSync(`${__dirname}/../${f}`, 'utf8')).join('\n');
    // Where the key is put together, its beginning stands in the code.
    const beginnings = [...code.matchAll(/[`'"]([\w.-]+\.)\$\{/g)].map((m) => m[1]!);
    const leaves = (tree: object, path: string): string[] =>
      Object.entries(tree).flatMap(([key, value]) =>
        typeof value === 'string' ? [path + key] : leaves(value as object, `${path}${key}.`),
      );
    const nested = new Set([...JSON.stringify(en).matchAll(/\$t\(([\w.]+)/g)].map((m) => m[1]));
    const unused = leaves(en, '')
      .map((key) => key.replace(/_(one|other)$/, ''))
      .filter((key) => !nested.has(key) && !code.includes(`'${key}'`) && !beginnings.some((b) => key.startsWith(b)));
    expect([...new Set(unused)]).toEqual([]);
  });

  it.each(languages)('lack nothing in %s, with the same facts in each', async (language) => {
    const leaves = (tree: object, path = ''): [string, string][] =>
      Object.entries(tree).flatMap(([key, value]: [string, object | string]) =>
        typeof value === 'string' ? [[path + key, value]] : leaves(value, `${path}${key}.`),
      );
    const facts = (text = '') => [...text.matchAll(/\{\{(\w+)/g)].map((m) => m[1]).sort();
    const written = new Map(leaves(await spoken[language].texts()));
    const english = leaves(en);
    expect(english.length).toBeGreaterThan(2000);
    expect(english.flatMap(([key]) => (written.get(key) ? [] : [key]))).toEqual([]);
    expect(english.filter(([key, text]) => facts(text).join() !== facts(written.get(key)).join())).toEqual([]);
    expect([...written.keys()].filter((key) => !english.some(([known]) => known === key))).toEqual([]);
  });

  it('use one German word for one thing, as the glossary has it', () => {
    const strange = /\b(Touren?|Stopps?|Bahn(en)?|Stellplatz-Code|SSCC|Behälter|Bin|Picktour)\b/;
    expect(JSON.stringify(de).match(strange)).toBeNull();
  });

  it('follow the language of the person, numbers and days too', async () => {
    await showLanguage('de');
    expect([i18n.t('floor.iAmHere'), number(12_345), weight(27_340)]).toEqual(['Am Fach', '12.345', '27,3']);
    expect(i18n.t('settings.stages.title')).toBe('Vom Regal bis zum Lkw');
    await showLanguage('en');
    expect([i18n.t('floor.iAmHere'), number(12_345)]).toEqual(['At the bin', '12,345']);
  });

  it('fill in the facts', () => {
    expect(
      words({
        code: 'wave-begun',
        facts: { runs: [{ number: '0007', picker: 'Pico' }] },
        fields: [],
        requestId: '',
        status: 409,
      }),
    ).toContain('0007 (Pico)');
    expect(
      words({ code: 'run-state', facts: { run: '0007', state: 'left' }, fields: [], requestId: '', status: 409 }),
    ).toBe('Run 0007 is now at the bench.');
    expect(words({ code: 'something-new', facts: {}, fields: [], requestId: 'r-1', status: 500 })).toContain('r-1');
    expect(
      trailWords({
        id: 1,
        at: '',
        person: null,
        device: '',
        kind: 'scan-refused',
        facts: { code: 'wrong-bin', got: 'A-01-1', expected: 'B-07-2', bin: 'B-07-2' },
      }),
    ).toBe('Refused: This is bin A-01-1. Go to B-07-2 at B-07-2');
    expect(
      trailWords({
        id: 1,
        at: '',
        person: null,
        device: '',
        kind: 'short',
        facts: { missing: 2, item: 'Jar', bin: 'A-01-1', reason: 'damaged' },
      }),
    ).toBe('Short by 2 × Jar at A-01-1: damaged');
    for (const reason of shortReasons) expect(i18n.exists(`floor.reason.${reason}`)).toBe(true);
  });

  it('say times and weights plainly', () => {
    const now = Date.parse('2026-03-02T12:00:00Z');
    expect(relative('2026-03-02T12:25:00Z', now)).toBe('in 25 min');
    expect(relative('2026-03-02T10:55:00Z', now)).toBe('late by 1 h 5 min');
    expect([weight(950), weight(27_340), weight(1_500_000)]).toEqual(['0.95', '27.3', '1,500']);
    // The pound and the foot are exact by the international agreement of 1959: from memory.
    showUnits('imperial');
    expect([mass(453.59237), mass(1_000_000), distance(0.3048), distance(100)]).toEqual([
      '1.00 lb',
      '2,205 lb',
      '1 ft',
      '328 ft',
    ]);
    showUnits('metric');
    expect([mass(1000), distance(114.4)]).toEqual(['1.00 kg', '114 m']);
  });

  it('say what a picker will be asked, as the floor then asks it', () => {
    const all: Check[] = ['bin', 'item', 'lot', 'position'];
    expect(scansOf({ checks: all, order: 'either', counting: 'each', drop: 'place' })).toEqual([
      'Scan bin B-07-2 or the item, in either order',
      'Scan each, up to 3',
      'Scan lot A4802, where the item scan did not tell it',
      'Scan place CART-07-4',
    ]);
    expect(scansOf({ checks: [], order: 'bin-first', counting: 'packs', drop: 'place' })).toHaveLength(1);
  });
});
