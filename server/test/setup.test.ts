import exceljs from 'exceljs';
import supertest from 'supertest';
import type { SheetPreview } from '@hand-relay/contract';
import { sheetNames, type SheetName } from '@hand-relay/core/reading/sheets';
import { change } from '../src/platform/index.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { setupOf } from './sheets.ts';
import { packAll, pickAll, startWave, takeIn } from './steps.ts';

describe('master data', () => {
  let relay: TestRelay;
  let desk: Person;
  let setup: ReturnType<typeof setupOf>;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
    setup = setupOf(desk);
  });
  afterAll(() => relay.close());
  const faults = (look: SheetPreview) => look.errors.map((e) => [e.row, e.column, e.expected]);

  it('is exported as the file that it imports, of every kind, as CSV and as XLSX', async () => {
    const names = Object.keys((await desk.get('setupOverview')).counts).filter((n) => n !== 'unread');
    expect(names.sort()).toEqual([...sheetNames].sort());
    const shift = { person: 'pico', day: '2030-01-01', from: '06:00', until: '14:00' };
    await desk.get('changeSheet', { id: 'roster', body: { rows: [shift] } });
    for (const name of names as SheetName[]) {
      const csv = await desk.ask('sheetFile', { id: name });
      expect([name, csv.status]).toEqual([name, 200]);
      const look = await setup.look(name, Buffer.from(csv.text));
      expect([name, look.counts.new, look.counts.changed, look.errors]).toEqual([name, 0, 0, []]);
      expect(look.counts.same).toBeGreaterThan(0);
    }
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'maren', password: 'honeycomb' });
    const { body } = await agent.get('/api/setup/sheets/items/file?format=xlsx').responseType('blob');
    const look = await setup.look('items', body as Buffer);
    expect(look).toMatchObject({ encoding: 'XLSX', errors: [], counts: { new: 0, changed: 0, same: 335 } });
  });

  it('is previewed without writing, taken once, and the same file changes nothing twice', async () => {
    const file =
      'item,name,length_mm,width_mm,height_mm,weight_g,value\nNEW-1,A new thing,10,20,30,40,1.25\nJR-001,Renamed jar,80,80,110,210,\n';
    const look = await setup.look('items', file);
    expect(look.counts).toEqual({ new: 1, changed: 1, same: 0, errors: 0 });
    expect(look.rows[1]!.differences).toContainEqual(expect.objectContaining({ column: 'name', after: 'Renamed jar' }));
    expect((await setup.rows('items')).some((r) => r['item'] === 'NEW-1')).toBe(false);
    expect(await setup.take('items', file)).toMatchObject({ state: 'done', done: 2 });
    expect((await setup.rows('items')).find((r) => r['item'] === 'NEW-1')).toMatchObject({
      value: 125,
      unit: 'piece',
      handling: 'easy',
    });
    expect((await setup.look('items', file)).counts).toEqual({ new: 0, changed: 0, same: 2, errors: 0 });
  });

  it.each<[string, SheetName, string | Uint8Array, [number, string, string][]]>([
    [
      'a file of another kind',
      'items',
      'order,channel\nA,web\n',
      [
        [1, 'item', 'a-column'],
        [1, 'name', 'a-column'],
        [1, 'length_mm', 'a-column'],
        [1, 'width_mm', 'a-column'],
        [1, 'height_mm', 'a-column'],
        [1, 'weight_g', 'a-column'],
      ],
    ],
    ['a picture', 'items', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0]), [[0, '', 'a-file']]],
    ['a workbook of the old form', 'items', Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0]), [[0, '', 'a-file']]],
    ['an archive that is no workbook', 'items', Uint8Array.from([0x50, 0x4b, 3, 4, 9, 9]), [[0, '', 'a-file']]],
    ['nothing', 'items', ' \n', [[0, '', 'a-file']]],
    ['one key twice', 'customers', 'customer,name\nX,One\nX,Two\n', [[3, 'customer', 'once']]],
    ['a bin that nobody knows', 'stock', 'bin,item,units\nZZ-99-9,JR-001,4\n', [[2, 'bin', 'a-known']]],
    ['a lot of an item without', 'stock', 'bin,item,units,lot\nG-01-1,JR-001,4,L1\n', [[2, 'lot', 'not-with']]],
    ['a count that is none', 'stock', 'bin,item,units\nG-01-1,JR-001,many\n', [[2, 'units', 'a-whole-number']]],
    [
      'a date either way round',
      'stock',
      'bin,item,units,lot,best_before\nM-01-1,PP-001,4,L1,03/04/2027\n',
      [[2, 'best_before', 'one-date-only']],
    ],
    [
      'a barcode with a wrong digit',
      'items',
      'item,name,length_mm,width_mm,height_mm,weight_g,gtin\nQ,Q,1,1,1,1,9521234001011\n',
      [[2, 'gtin', 'a-gtin']],
    ],
    ['a role that nobody made', 'people', 'person,name,roles,badge\nq,Q,emperor,Q-1\n', [[2, 'roles', 'one-of']]],
    [
      'a badge that another bears',
      'people',
      'person,name,roles,badge\nq,Q,picker,BADGE-2001\n',
      [[2, 'badge', 'once']],
    ],
    ['a bin in a zone that nobody made', 'bins', 'bin,zone,aisle,y_m\nA-01-1,moon,A,2\n', [[2, 'zone', 'a-known']]],
    [
      'a bin in an aisle that stands nowhere',
      'bins',
      'bin,zone,aisle,y_m\nQ-01-1,small,Q,2\n',
      [[2, 'aisle_x_m', 'a-value']],
    ],
    [
      'an aisle that stands in two places',
      'bins',
      'bin,zone,aisle,aisle_x_m,y_m\nQ-01-1,small,Q,50,2\nQ-02-1,small,Q,51,2\n',
      [[3, 'aisle_x_m', 'together']],
    ],
    [
      'an outer pack smaller than the inner one',
      'items',
      'item,name,length_mm,width_mm,height_mm,weight_g,inner_units,outer_units\nQ,Q,1,1,1,1,12,6\n',
      [[2, 'outer_units', 'a-number-from']],
    ],
    [
      'one barcode of two items',
      'items',
      'item,name,length_mm,width_mm,height_mm,weight_g,gtin\nQ,Q,1,1,1,1,6291041500213\nQ2,Q2,1,1,1,1,6291041500213\n',
      [[3, 'gtin', 'once']],
    ],
    [
      'serial numbers told of goods that lie here without',
      'items',
      'item,name,length_mm,width_mm,height_mm,weight_g,serials\nJR-001,Jar,1,1,1,1,yes\n',
      [[2, 'serials', 'as-it-is']],
    ],
    [
      'one serial number twice',
      'stock',
      'bin,item,units,serial\nK-17-1,RF-001,1,S-9\nK-18-1,RF-001,1,S-9\n',
      [[3, 'serial', 'once']],
    ],
    [
      'a carrier with two forms of numbers',
      'carriers',
      'carrier,service,tracking\nRook,Day,s10\nRook,Night,none\n',
      [[3, 'tracking', 'together']],
    ],
    [
      'a form with a prefix and none told',
      'carriers',
      'carrier,service,tracking\nRook,Day,prefix\n',
      [
        [2, 'prefix', 'a-value'],
        [2, 'digits', 'a-value'],
      ],
    ],
    [
      'a departure at no time, or from no lane',
      'departures',
      'departure,carrier,service,cut_off,lane\nD,Skylark Parcels,Day,25:00,LANE-1\nE,Skylark Parcels,Day,17:00,LANE-9\n',
      [
        [2, 'cut_off', 'a-time'],
        [3, 'lane', 'a-known'],
      ],
    ],
    [
      'carts of one type that take different things',
      'carts',
      'cart,type,positions\nCART-90,New,6\nCART-91,New,8\n',
      [[3, 'positions', 'together']],
    ],
    ['a lane that is a bench already', 'places', 'place,kind\nBENCH-1,lane\n', [[2, 'kind', 'as-it-is']]],
    [
      'somebody who could not sign in, with a PIN of letters',
      'people',
      'person,name,roles,pin\nq,Q,picker,abcd\n',
      [
        [2, 'badge', 'a-value'],
        [2, 'pin', 'a-pin'],
      ],
    ],
    [
      'a service that nobody offers',
      'departures',
      'departure,carrier,service,cut_off\nD,Nobody,None,17:00\n',
      [[2, 'service', 'a-known']],
    ],
  ])('refuses %s at its place', async (_, sheet, data, expected) => {
    const look = await setup.look(sheet, data);
    expect(faults(look)).toEqual(expected);
    // Nothing that is wrong would be written.
    const wrong = new Set(look.errors.map((e) => e.row));
    expect(look.rows.filter((r) => wrong.has(r.row))).toEqual([]);
  });

  it('imports what is odd and says so: a code that reads as something else, sizes in another unit', async () => {
    const look = await setup.look(
      'items',
      'item,name,length_mm,width_mm,height_mm,weight_g\nCART-07,Cart,80,80,110,500\nQ-JAR,Jar,800,800,1100,500\nQ-OK,Jar,80,80,110,500\n',
    );
    expect(look.errors).toEqual([]);
    expect(look.warnings).toMatchObject([
      { row: 2, column: 'item', expected: 'no-other-kind', facts: { kind: 'cart' } },
      { row: 2, column: 'item', expected: 'no-other-code', facts: { kind: 'cart' } },
      {
        row: 3,
        column: 'length_mm',
        value: '800 × 800 × 1100',
        expected: 'another-unit',
        facts: { grams: 500, litres: 704 },
      },
    ]);
    expect(look.counts).toMatchObject({ new: 3, errors: 0 });
  });

  it('reads what other programs write: Windows-1252, UTF-16, tabs, decimal commas, dates day first', async () => {
    const customers = (bytes: Uint8Array) => setup.look('customers', bytes);
    const windows = Uint8Array.from([...Buffer.from('customer;name\nU1;M'), 0xfc, ...Buffer.from('hle\n')]);
    expect(await customers(windows)).toMatchObject({ encoding: 'windows-1252', rows: [{ values: { name: 'Mühle' } }] });
    const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('customer\tname\nU2\tŠimek\n', 'utf16le')]);
    expect(await customers(wide)).toMatchObject({ encoding: 'utf-16le', rows: [{ values: { name: 'Šimek' } }] });
    const lots = await setup.look(
      'stock',
      'bin;item;units;lot;best before\nM-01-1;PP-001;4;L1;25.04.2027\nM-01-1;PP-001;4;L2;03.04.2027\n',
    );
    expect(lots.rows.map((r) => r.values['best_before'])).toEqual(['2027-04-25', '2027-04-03']);
    const book = new exceljs.Workbook();
    book.addWorksheet('x').addRows([
      ['Carton', 'Name', 'Length', 'Width', 'Height', 'Tare', 'Max weight', 'Cost'],
      ['BOX-Q', 'Odd', 10, 20, { formula: '10+20', result: 30 }, 5, 100, 0.5],
    ]);
    const boxes = await setup.look('cartons', new Uint8Array(await book.xlsx.writeBuffer()));
    expect(boxes.rows[0]!.values).toMatchObject({ inner_height_mm: 30, cost: 50 });
  });

  it('books stock imported again as a movement, and never below what pickers are sent for', async () => {
    const [row] = (await setup.rows('stock')).filter((r) => r['item'] === 'HT-007');
    const tell = (units: number) => desk.get('changeSheet', { id: 'stock', body: { rows: [{ ...row, units }] } });
    const before = Number(row!['units']);
    const told = await tell(before + 7);
    expect(told).toMatchObject({ changed: 1, errors: [] });
    const [moved] = await relay.query<{ units: number; reason: string; person: string }>(
      `select units, reason, person_id as person from movement order by id desc limit 1`,
    );
    expect(moved).toEqual({ units: 7, reason: 'stock told', person: 'maren' });
    await desk.get('setupUndo', { body: { entry: told.entry } });
    expect((await setup.rows('stock')).find((r) => r['bin'] === row!['bin'] && r['item'] === 'HT-007')!['units']).toBe(
      before,
    );
    const order = await takeIn(desk, { number: 'SETUP-1', lines: [['HT-007', 1]] });
    await startWave(desk, [order]);
    const [bin] = await relay.query<{ bin: string }>(
      `select p.code as bin from pick k join place p on p.id = k.bin_id where k.order_id = '${order}'`,
    );
    const [at] = (await setup.rows('stock')).filter((r) => r['item'] === 'HT-007' && r['bin'] === bin!.bin);
    const refused = await desk.get('changeSheet', { id: 'stock', body: { rows: [{ ...at, units: 0 }] } });
    expect(refused).toMatchObject({ entry: null, errors: [{ column: 'units', expected: 'a-number-from' }] });
  });

  it('is edited in place and undone, and nothing that history names is deleted', async () => {
    const change = (sheet: SheetName, ...rows: object[]) => desk.get('changeSheet', { id: sheet, body: { rows } });
    const [customer] = (await setup.rows('customers')).filter((r) => r['customer'] === 'C1005');
    const edited = await change('customers', { ...customer, name: 'Another name' });
    expect(edited).toMatchObject({ changed: 1 });
    expect((await setup.rows('customers')).find((r) => r['customer'] === 'C1005')!['name']).toBe('Another name');
    await desk.get('setupUndo', { body: { entry: edited.entry } });
    expect((await setup.rows('customers')).find((r) => r['customer'] === 'C1005')!['name']).toBe(customer!['name']);
    expect((await desk.refused('setupUndo', { body: { entry: edited.entry } })).code).toBe('undone-already');
    const again = await change('customers', { ...customer, name: 'First' });
    await change('customers', { ...customer, name: 'Second' });
    expect((await desk.refused('setupUndo', { body: { entry: again.entry } })).code).toBe('changed-since');
    const retire = (sheet: SheetName, row: object, retired = true) =>
      desk.get('retireSheetRows', { id: sheet, body: { rows: [row], retired } });
    expect(await retire('items', { item: 'JR-002' })).toMatchObject({
      entry: null,
      errors: [{ expected: 'nothing-there' }],
    });
    expect(await retire('customers', customer!)).toMatchObject({ changed: 1 });
    const taken = await desk.get('intake', {
      body: { mode: 'preview', csv: (await desk.ask('orderExample')).text.replaceAll(/C\d{4}/g, 'C1005') },
    });
    expect(new Set(taken.errors.map((e) => e.expected))).toEqual(new Set(['a-known-customer']));
    expect(await retire('customers', customer!, false)).toMatchObject({ changed: 1 });
    const { entries } = await desk.get('setupHistory');
    expect(entries.find((e) => e.id === edited.entry)).toMatchObject({
      sheet: 'customers',
      rows: 1,
      person: 'Maren Holt',
      undone: true,
    });
  });

  it('keeps no password in the clear, and signs out whose PIN was changed', async () => {
    const pico = await relay.as('pico');
    const [person] = (await setup.rows('people')).filter((r) => r['person'] === 'pico');
    expect(person).toMatchObject({ password: '', pin: '' });
    const changed = await desk.get('changeSheet', { id: 'people', body: { rows: [{ ...person, pin: '9753' }] } });
    expect(changed).toMatchObject({ changed: 1, errors: [] });
    const journal = await relay.query<{ facts: object }>(
      "select facts from journal where kind = 'setup-changed' order by id desc limit 1",
    );
    expect(JSON.stringify(journal)).not.toContain('9753');
    await new Promise((resolve) => setTimeout(resolve, 5200));
    expect((await pico.refused('me')).code).toBe('not-signed-in');
    const badge = (pin: string) => supertest(relay.app).post('/api/session').send({ badge: 'BADGE-2001', pin });
    expect((await badge('2468')).status).toBe(401);
    expect((await badge('9753')).status).toBe(200);
  });

  it('leaves at least one person who may change Setup', async () => {
    const [maren] = (await setup.rows('people')).filter((r) => r['person'] === 'maren');
    const demoted = await desk.get('changeSheet', { id: 'people', body: { rows: [{ ...maren, roles: 'picker' }] } });
    expect(demoted).toMatchObject({ entry: null, errors: [{ column: 'roles', expected: 'a-supervisor' }] });
    const retired = await desk.get('retireSheetRows', { id: 'people', body: { rows: [maren!], retired: true } });
    expect(retired).toMatchObject({ entry: null, errors: [{ column: 'person', expected: 'a-supervisor' }] });
    // With another one it may be done, in one step too.
    const deputy = { person: 'deputy', name: 'Deputy', roles: 'supervisor', login: 'deputy', password: 'long enough' };
    const both = await desk.get('changeSheet', { id: 'people', body: { rows: [deputy] } });
    expect(both).toMatchObject({ changed: 1, errors: [] });
    const again = await desk.get('changeSheet', {
      id: 'people',
      body: { rows: [{ ...maren, roles: 'supervisor picker' }] },
    });
    expect(again).toMatchObject({ changed: 1 });
    await desk.get('setupUndo', { body: { entry: again.entry } });
  });

  it('reads a guessed column only once somebody says so, and forgets the values of an undone insert', async () => {
    const text =
      'Item;Name;Length;Width;Height;Weight;Price;Charge\nGUESS-1;Pan;10;10;10;5;6,90;yes\nGUESS-2;Lid;10;10;10;5;1,20;yes\n';
    const file = { file: 'guess.csv', data: Buffer.from(text).toString('base64') };
    const look = await desk.get('previewSheet', { id: 'items', body: file });
    expect(look).toMatchObject({ guesses: ['service'], matching: { service: 'Charge', value: 'Price' } });
    expect(look.samples['Price']).toEqual(['6,90', '1,20']);
    expect(look.rows.map((r) => r.values['service'])).toEqual([false, false]);
    const take = (matching: Record<string, string | null>) =>
      desk.get('importSheet', { id: 'items', body: { ...file, matching } }).then(({ job }) => setup.ended(job));
    const there = async () =>
      (await desk.get('sheetRows', { id: 'items' })).rows
        .filter((r) => String(r['item']).startsWith('GUESS'))
        .map((r) => ({ service: r['service'], value: r['value'], retired: r['retired'] }));
    const wrong = await take({ service: 'Charge' });
    expect(await there()).toEqual(Array(2).fill({ service: true, value: expect.any(Number), retired: false }));
    await desk.get('setupUndo', { body: { entry: wrong.id } });
    await take({ service: null, value: null });
    expect(await there()).toEqual(Array(2).fill({ service: false, value: 0, retired: false }));
  });

  it('takes thousands of bins beside other work, tells how far it is, and stops when told', async () => {
    const pattern = {
      firstAisle: 'AA',
      aisles: 24,
      bays: 50,
      levels: 5,
      sides: 2,
      bayMetres: 1,
      aisleMetres: 4,
      crossEvery: 25,
      crossMetres: 2,
      naming: '{aisle}-{bay}-{level}',
      zone: 'small',
    };
    const { job } = await desk.get('makeFloor', { body: pattern });
    for (;;) {
      const { done, state } = await desk.get('job', { id: job });
      if (done > 0 || state !== 'running') break;
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
    // A cancellation that is undone with its change stops nothing.
    const actor = { personId: 'maren', name: '', siteId: 'larkmoor', sessionId: '', device: '', requestId: '' };
    const undone = change(relay.platform, { ...actor, rights: new Set() }, null, async (current) => {
      await relay.platform.jobs.cancel(current, { id: job });
      throw new Error('undone');
    });
    await expect(undone).rejects.toThrow('undone');
    const { done } = await desk.get('job', { id: job });
    for (let now = done; now === done;) {
      const { state, ...at } = await desk.get('job', { id: job });
      expect(state).toBe('running');
      now = at.done;
    }
    await desk.get('cancelJob', { id: job });
    const stopped = await setup.ended(job);
    expect(stopped).toMatchObject({ state: 'cancelled', all: 12_000 });
    expect(stopped.done).toBeLessThan(12_000);
    // What is told to be there is there, and the same again goes on where it stopped.
    const [there] = await relay.query<{ n: number }>(
      "select count(*)::int as n from place where kind = 'bin' and site_id = 'larkmoor' and aisle like '__'",
    );
    expect(there!.n).toBe(stopped.done);
    const rest = await setup.ended((await desk.get('makeFloor', { body: pattern })).job);
    expect(rest).toMatchObject({ state: 'done', all: 12_000 - stopped.done });
    expect((await desk.refused('makeFloor', { body: { ...pattern, naming: '{aisle}' } })).fields[0]!.message).toContain(
      'naming',
    );
    const crowded = { ...pattern, firstAisle: 'ZA', startX: 1 };
    expect((await desk.refused('makeFloor', { body: crowded })).fields[0]!.message).toContain('would lie on aisle');
    expect((await desk.refused('makeFloor', { body: { ...pattern, zone: 'moon' } })).code).toBe('unknown-zone');
  });

  it('generates aisles behind the floor that is there, a zone to each, and undoes all of it as one', async () => {
    const before = await desk.get('floorLayout');
    const behind = Math.max(...before.aisles.map((a) => a.x));
    const pattern = {
      firstAisle: 'XA',
      aisles: 6,
      bays: 60,
      levels: 2,
      sides: 1,
      bayMetres: 1,
      aisleMetres: 4,
      crossEvery: 0,
      crossMetres: 2,
      naming: '{aisle}-{bay}-{level}',
      zone: 'small',
      zonesFrom: [{ aisle: 'XD', zone: 'chill' }],
    };
    const { job } = await desk.get('makeFloor', { body: pattern });
    expect(await setup.ended(job)).toMatchObject({ state: 'done', all: 720 });
    const after = await desk.get('floorLayout');
    const made = after.aisles.filter((a) => a.id.startsWith('X'));
    expect(made.map((a) => a.id)).toEqual(['XA', 'XB', 'XC', 'XD', 'XE', 'XF']);
    expect(Math.min(...made.map((a) => a.x))).toBeGreaterThan(behind + 2);
    // The floor is longer now; aisles that were there end where they did.
    const end = before.crossAisles.at(-1)!;
    expect(after.crossAisles.at(-1)).toBeGreaterThan(end);
    expect(after.aisles.filter((a) => !a.id.startsWith('X')).every((a) => a.to !== undefined && a.to <= end)).toBe(
      true,
    );
    const zonesOf = () =>
      relay.query<{ aisle: string; zone: string; n: number }>(
        `select aisle, z.code as zone, count(*)::int as n from place p join zone z on z.id = p.zone_id
         where p.site_id = 'larkmoor' and aisle like 'X_' and not p.retired group by 1, 2 order by 1`,
      );
    expect((await zonesOf()).map((z) => `${z.aisle} ${z.zone} ${z.n}`)).toEqual([
      'XA small 120',
      'XB small 120',
      'XC small 120',
      'XD chill 120',
      'XE chill 120',
      'XF chill 120',
    ]);
    // Two chunks were written; the history has one entry, and its undo takes the aisles too.
    const [entry] = (await desk.get('setupHistory')).entries;
    expect(entry).toMatchObject({ id: job, sheet: 'bins', rows: 720, undone: false });
    const undone = await desk.get('setupUndo', { body: { entry: job } });
    expect(undone.changed).toBe(720);
    expect(await zonesOf()).toEqual([]);
    expect((await desk.get('floorLayout')).aisles.map((a) => a.id)).toEqual(before.aisles.map((a) => a.id));
    expect((await desk.refused('setupUndo', { body: { entry: job } })).code).toBe('undone-already');
    // The undo is undone as one, too.
    await desk.get('setupUndo', { body: { entry: undone.entry! } });
    expect((await zonesOf()).length).toBe(6);
    expect((await desk.get('floorLayout')).aisles.filter((a) => a.id.startsWith('X'))).toHaveLength(6);
  });

  it('changes the site, and numbers units in the house alone while it has no prefix', async () => {
    const { site } = await desk.get('site');
    expect(site).toMatchObject({ name: 'Larkmoor Apiary Supply', gs1Prefix: '9521234' });
    expect(await desk.refused('changeSite', { body: { ...site, currency: 'pounds' } })).toMatchObject({
      fields: [{ path: 'currency' }],
    });
    expect((await desk.get('changeSite', { body: { ...site, gs1Prefix: '', city: 'Elsewhere' } })).site).toMatchObject({
      gs1Prefix: '',
      city: 'Elsewhere',
    });
    expect((await desk.get('setupOverview')).missing).toEqual([{ what: 'site', why: 'prefix' }]);
    const order = await takeIn(desk, { number: 'IN-HOUSE', lines: [['UK-004', 1]] });
    const wave = await startWave(desk, [order]);
    await pickAll(desk, (await desk.get('wave', { id: wave })).runs[0]!.id, 'CART-09');
    const { cartons } = await packAll(desk, order);
    expect(cartons[0]!.sscc).toMatch(/^30000000\d{10}$/);
    await desk.get('changeSite', { body: site });
  });

  it('keeps what is still needed: a bin with goods, a zone with bins, a service with departures, a cart at work', async () => {
    const refused = async (sheet: SheetName, row: object) =>
      (await desk.get('retireSheetRows', { id: sheet, body: { rows: [row], retired: true } })).errors.map(
        (e) => e.expected,
      );
    const [stocked] = await setup.rows('stock');
    expect(await refused('bins', { bin: stocked!['bin'] })).toEqual(['nothing-there']);
    expect(await refused('zones', { zone: 'glass' })).toEqual(['nothing-there']);
    expect(await refused('carriers', { carrier: 'Skylark Parcels', service: 'Day' })).toEqual(['nothing-there']);
    const order = await takeIn(desk, { number: 'AT-WORK', lines: [['FI-002', 1]] });
    const wave = await startWave(desk, [order]);
    const [run] = (await desk.get('wave', { id: wave })).runs;
    const suri = await relay.as('suri');
    await suri.get('takeRun', { id: run!.id, body: { cart: 'CART-15' } });
    expect(await refused('carts', { cart: 'CART-15' })).toEqual(['nothing-there']);
    expect(await refused('carts', { cart: 'CART-16' })).toEqual([]);
    const other = await startWave(desk, [await takeIn(desk, { number: 'NO-CART', lines: [['FI-003', 1]] })]);
    const [waiting] = (await desk.get('wave', { id: other })).runs;
    expect((await suri.refused('takeRun', { id: waiting!.id, body: { cart: 'CART-16' } })).code).toBe('unknown-cart');
    // What is retired is offered nowhere, and a row of the same name brings it back.
    await desk.get('retireSheetRows', { id: 'cartons', body: { rows: [{ carton: 'BOX-XS' }], retired: true } });
    const ada = await relay.as('ada');
    const boxes = async () => (await ada.get('benchOrder', { id: order })).bench.boxes.map((b) => b.code);
    expect(await boxes()).not.toContain('BOX-XS');
    const head = 'carton,name,inner_length_mm,inner_width_mm,inner_height_mm,tare_g,max_weight_g,cost';
    const file = `${head}\nBOX-XS,Extra small,192,142,92,90,5000,0.28\n`;
    expect((await setup.look('cartons', file)).rows[0]!.differences).toEqual([
      { column: 'retired', before: true, after: false },
    ]);
    await setup.take('cartons', file);
    expect(await boxes()).toContain('BOX-XS');
    expect((await desk.refused('sheetRows', { id: 'toString' })).status).toBe(404);
  });

  it('prints a badge for everybody who bears one', async () => {
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'maren', password: 'honeycomb' });
    const { body, status } = await agent.get('/api/setup/badges.pdf').responseType('blob');
    expect(status).toBe(200);
    const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    const page = await (await getDocument({ data: new Uint8Array(body as Buffer) }).promise).getPage(1);
    const text = (await page.getTextContent()).items.map((i) => ('str' in i ? i.str : '')).join(' ');
    for (const shown of ['Pico Lund', 'BADGE-2001', 'Maren Holt', 'picker']) expect(text).toContain(shown);
    expect(text).not.toContain('Tobi Raske');
  });
});
