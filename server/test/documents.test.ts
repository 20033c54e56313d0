import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { hasCheckDigit } from '@hand-relay/core/reading/gs1';
import { commandCode, packCommands } from '@hand-relay/core/handling/packing';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { DPI, readPdf } from './pdf.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, startWave, takeIn } from './steps.ts';

const require_ = createRequire(import.meta.url);

async function symbols(image: Parameters<typeof readBarcodes>[0], most = 8) {
  const found = await readBarcodes(image, { formats: ['Code128'], tryHarder: true, maxNumberOfSymbols: most });
  return found.map((s) => ({
    text: s.text,
    gs1: s.symbologyIdentifier === ']C1',
    heightMm: (Math.abs(s.position.bottomLeft.y - s.position.topLeft.y) / DPI) * 25.4,
    widthMm: (Math.abs(s.position.topRight.x - s.position.topLeft.x) / DPI) * 25.4,
  }));
}

describe('documents', () => {
  let relay: TestRelay;
  let [packer, dock] = [] as unknown as [Person, Person];
  let order: { id: string; number: string };
  let carton: { id: string; sscc: string };
  let shipment: string;
  let asked: { sku: string; name: string; units: number }[];
  beforeAll(async () => {
    prepareZXingModule({
      overrides: {
        wasmBinary: readFileSync(require_.resolve('zxing-wasm/reader/zxing_reader.wasm')).buffer,
      },
    });
    relay = await openTest();
    const [desk, picker] = await Promise.all([relay.as('maren'), relay.as('pico')]);
    [packer, dock] = await Promise.all([relay.as('ada'), relay.as('len')]);
    const { rows } = await desk.get('orders');
    const row = rows.find((r) => r[2] === 'web' && Number(r[9]) > 2 && r[9] === r[10])!;
    order = { id: row[0] as string, number: row[1] as string };
    await startWave(desk, [order.id]);
    await pickAll(picker, (await picker.get('myRuns')).waiting[0]!.id, 'CART-01');
    const packed = await packAll(packer, order.id);
    carton = { id: packed.cartons[0]!.id, sscc: packed.cartons[0]!.sscc! };
    shipment = (await dock.get('dock')).shipments[0]!.shipment;
    await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
    asked = (await desk.get('order', { id: order.id })).lines.map((l) => ({
      sku: l.sku,
      name: l.name,
      units: l.asked,
    }));
  });
  afterAll(() => relay.close());
  const pdf = async (person: Person, name: 'cartonLabel' | 'packingSlip', id: string, size?: string) => {
    const response = await person.ask(name, { id, ...(size ? { query: { size } } : {}) });
    expect(response.headers['content-type']).toBe('application/pdf');
    return readPdf(response.body as Buffer);
  };

  // GS1 General Specifications, logistic label: the SSCC symbol at least 31.75 mm high, X dimension 0.495 to 0.94 mm.
  it.each([
    ['4x6', 288, 432],
    ['a6', 297.64, 419.53],
  ])('the label %s says who, what and how heavy, and its barcode reads as the SSCC', async (size, width, height) => {
    const label = await pdf(packer, 'cartonLabel', carton.id, size);
    expect([label.width, label.height]).toEqual([expect.closeTo(width, 1), expect.closeTo(height, 1)]);
    const [text] = label.texts;
    for (const word of [order.number, `(00)${carton.sscc}`, '1 of ', 'kg', 'LANE-', 'Larkmoor'])
      expect(text).toContain(word);
    const read = await symbols(label.image);
    const unit = read.find((s) => s.text === `(00)${carton.sscc}` || s.text === `00${carton.sscc}`)!;
    expect(unit).toMatchObject({ gs1: true });
    expect(hasCheckDigit(carton.sscc)).toBe(true);
    expect(unit.heightMm).toBeGreaterThan(31);
    // Start, FNC1, ten pairs, check and stop: 156 modules.
    expect(unit.widthMm / 156).toBeGreaterThan(0.485);
    expect(unit.widthMm / 156).toBeLessThan(0.94);
    expect(read.some((s) => s.text.endsWith(order.number) && s.gs1)).toBe(true);
    expect(text).toContain('United Kingdom');
  });

  // GS1 General Specifications: (02) and (37) what and how many, (400) the customer's own number, (420) the postcode.
  it('the label of one kind of goods says what and how many, for whose order and where to; a label printer gets the same', async () => {
    const desk = await relay.as('maren');
    const id = await pickedOrder(desk, await relay.as('pico'), 'CART-09', {
      number: 'DOC-1',
      lines: [['JR-001', 5]],
      reference: 'PO-77/3',
    });
    const { cartons } = await packAll(packer, id);
    const { gtin } = relay.scenario.items.find((i) => i.sku === 'JR-001')!.packs.find((p) => p.level === 'unit')!;
    const read = await symbols((await pdf(packer, 'cartonLabel', cartons[0]!.id)).image);
    const plain = read.map((s) => s.text.replaceAll(/[()]/g, '')).sort();
    const expected = [`00${cartons[0]!.sscc}`, `02${gtin}375`, '400PO-77/3', '420ZA12BC'];
    expect(plain).toEqual(expect.arrayContaining(expected.slice(0, 3)));
    expect(plain.every((text) => expected.includes(text) || text.startsWith('3302'))).toBe(true);
    const { job } = await packer.get('print', {
      body: { kind: 'carton-label', of: cartons[0]!.id, station: 'BENCH-1' },
    });
    const zpl = String((await packer.ask('printJobZpl', { id: job })).text);
    // Each symbol opens with FNC1; what has a fixed length needs none behind it.
    const fields = [...zpl.matchAll(/\^BCN,\d+,N,N,N,A\^FH\^FD>8([^^]+)\^FS/g)].map((m) => m[1]!);
    expect(fields.sort()).toEqual(plain);
    expect(zpl).toMatch(/^\^XA\n\^CI28\n\^PW812\n\^LL1218\n[\s\S]+\n\^XZ$/);
    expect(zpl).toContain('Juniper Orchards');
    const slip = await packer.get('print', { body: { kind: 'count-sheet', station: 'BENCH-1' } });
    expect((await packer.refused('printJobZpl', { id: slip.job })).status).toBe(404);
  });

  it('the packing slip lists every line with what is in the shipment, and its barcode opens the order', async () => {
    const slip = await pdf(dock, 'packingSlip', shipment);
    const text = slip.texts.join(' ');
    for (const line of asked)
      for (const word of [line.sku, line.name, String(line.units)]) expect(text).toContain(word);
    for (const word of [order.number, 'RR', carton.sscc, 'Page 1 of 1']) expect(text).toContain(word);
    expect((await symbols(slip.image)).map((s) => s.text)).toContain(`ORDER-${order.number}`);
    // It goes into a carton: nothing on it says that the shipment waits, and confirmed it reads the same.
    await dock.get('confirm', { id: shipment, body: {} });
    expect((await pdf(dock, 'packingSlip', shipment)).texts.join(' ')).toBe(text);
  });

  it('what is printed is the label itself: its PDF and its picture both read as the SSCC', async () => {
    const { job } = await packer.get('print', { body: { kind: 'carton-label', of: carton.id, station: 'BENCH-2' } });
    const pdf = (await packer.ask('printJobPdf', { id: job })).body as Buffer;
    expect((await readPdf(pdf)).texts[0]).toContain(order.number);
    const png = (await packer.ask('printJobPng', { id: job })).body as Buffer;
    const seen = await readBarcodes(new Uint8Array(png), { formats: ['Code128'], tryHarder: true });
    expect(seen.map((s) => s.text)).toContain(`(00)${carton.sscc}`);
  });

  it('the sizes are those of the site, until somebody asks for another', async () => {
    const desk = await relay.as('maren');
    const size = async (ask: Promise<{ body: unknown }>) => {
      const { width, height } = await readPdf((await ask).body as Buffer);
      return [Math.round(width), Math.round(height)];
    };
    const label = (query = {}) => size(packer.ask('cartonLabel', { id: carton.id, query }));
    const slip = () => size(dock.ask('packingSlip', { id: shipment }));
    // Points of 1/72 inch: 4 × 6 inches and A4 to begin with.
    expect([await label(), await slip()]).toEqual([
      [288, 432],
      [595, 842],
    ]);
    await desk.get('changeSiteSettings', { body: { ...usualSettings, label: 'a6', paper: 'letter' } });
    expect([await label(), await slip(), await label({ size: '4x6' })]).toEqual([
      [298, 420],
      [612, 792],
      [288, 432],
    ]);
    await desk.get('changeSiteSettings', { body: usualSettings });
  });

  it('a test page names its printer, in words and in a barcode that reads', async () => {
    const desk = await relay.as('maren');
    const { job } = await desk.get('print', { body: { kind: 'test-page', printer: 'LABEL-DOCK' } });
    const { texts, image } = await readPdf((await desk.ask('printJobPdf', { id: job })).body as Buffer);
    expect(texts[0]).toContain('LABEL-DOCK');
    expect((await symbols(image)).map((s) => s.text)).toEqual(['PRINTER-LABEL-DOCK']);
  });

  it('the sheet for the bench has a barcode for each count to twenty, none and all, and one for each command', async () => {
    const body = { kind: 'count-sheet', station: 'BENCH-1' };
    const { job } = await packer.get('print', { body });
    const sheet = await readPdf((await packer.ask('printJobPdf', { id: job })).body as Buffer);
    const read = await Promise.all(sheet.images.map((image) => symbols(image, 30)));
    expect(read.map((page) => page.map((s) => s.text).sort())).toEqual([
      ['COUNT-ALL', ...Array.from({ length: 21 }, (_, n) => `COUNT-${n}`)].sort(),
      packCommands.map(commandCode).sort(),
    ]);
  });

  it('the label of a carton that is not there is refused', async () =>
    expect((await packer.refused('cartonLabel', { id: 'nothing' })).code).toBe('not-found'));

  /** A wave of one order with a note and its run, planned and not started. */
  async function planned(number: string, lines: [string, number][]) {
    const desk = await relay.as('maren');
    const of = await takeIn(desk, { number, lines, note: 'Ring the bell twice' } as never);
    const { wave } = await desk.get('release', { body: { orders: [of] } });
    await desk.get('planWave', { id: wave });
    return { desk, wave, run: (await desk.get('wave', { id: wave })).runs[0]!.id };
  }
  const packed = () =>
    relay.query<{ sku: string; units: number }>(
      `select i.sku, max(g.units)::int as units from item i join item_pack g on g.item_id = i.id join balance b on b.item_id = i.id
       where g.units > 1 and not i.tracks_serial group by i.sku having sum(b.units) > 200 order by i.sku limit 1`,
    );

  it('a pick list says for whom, with what notes and in which packs, in the language of who picks', async () => {
    const [item] = await packed();
    const { desk, run, wave } = await planned('PAPER-1', [[item!.sku, item!.units + 1]]);
    const list = async () => readPdf((await desk.ask('pickList', { id: run })).body as Buffer);
    const english = await list();
    for (const word of ['PAPER-1', 'Quarry Honey Farm', 'Ring the bell twice', `1 × ${item!.units} + 1`, 'Notes'])
      expect(english.texts.join(' ')).toContain(word);
    expect((await symbols(english.image, 20)).map((s) => s.text)).toContain('ORDER-PAPER-1');
    await (await relay.as('suri')).get('changeLanguage', { body: { language: 'de' } });
    await desk.get('assignRuns', { body: { runs: [run], person: 'suri' } });
    const german = (await list()).texts.join(' ');
    for (const word of ['Rundgang', 'Fach', 'Hinweise']) expect(german).toContain(word);
    const slip = await readPdf((await desk.ask('waveSlips', { id: wave })).body as Buffer);
    for (const word of ['PAPER-1', 'Ring the bell twice', item!.sku]) expect(slip.texts.join(' ')).toContain(word);
    expect((await symbols(slip.image)).map((s) => s.text)).toEqual(['ORDER-PAPER-1']);
  });

  it('is printed by itself when a wave starts, where the site says so; without a printer the wave starts all the same', async () => {
    const [item] = await packed();
    const { desk, wave } = await planned('PAPER-2', [[item!.sku, 1]]);
    await desk.get('changeSiteSettings', {
      body: { ...usualSettings, atStart: { lists: true, slips: true, printer: '' } },
    });
    const since = async () =>
      (await desk.get('printJobs')).jobs.filter((j) => ['Pick lists', 'Order slips'].includes(j.title));
    expect(await since()).toEqual([]);
    await desk.get('startWave', { id: wave });
    const jobs = await since();
    expect(jobs.map((j) => [j.title, j.state]).sort()).toEqual([
      ['Order slips', 'waiting'],
      ['Pick lists', 'waiting'],
    ]);
    const file = await readPdf((await desk.ask('printJobPdf', { id: jobs[0]!.id })).body as Buffer);
    expect(file.texts.join(' ')).toContain('PAPER-2');
    await desk.get('changeSiteSettings', {
      body: { ...usualSettings, atStart: { lists: true, slips: false, printer: 'NOWHERE' } },
    });
    const next = await planned('PAPER-3', [[item!.sku, 1]]);
    await desk.get('startWave', { id: next.wave });
    expect((await desk.get('wave', { id: next.wave })).wave.state).toBe('started');
    expect((await since())[0]).toMatchObject({ state: 'failed', note: 'no-printer' });
    await desk.get('changeSiteSettings', { body: usualSettings });
  });

  it.each([
    ['carts', 'CART-01'],
    ['cart-places', 'CART-01-1'],
    ['lanes', 'LANE-1'],
    ['benches', 'BENCH-1'],
    ['doors', 'DOOR-1'],
    ['carton-types', 'BOX-XL'],
    ['people', 'BADGE-2001'],
  ])('labels for %s read as what is scanned, in every size', async (what, code) => {
    const desk = await relay.as('maren');
    const { labels } = await desk.get('labelChoices', { query: { what } });
    expect(labels.map((l) => l.code)).toContain(code);
    for (const size of ['sheet', '62x29', '4x6', 'a6']) {
      const { body } = await desk.ask('labels', { query: { what, size, codes: code } });
      const label = await readPdf(body as Buffer);
      expect(label.texts.join(' ')).toContain(code);
      expect([size, (await symbols(label.image)).map((s) => s.text)]).toEqual([size, [code]]);
    }
  });

  it('labels for items read as their barcode; a sheet has 24, and all of a kind without a choice', async () => {
    const desk = await relay.as('maren');
    const { labels } = await desk.get('labelChoices', { query: { what: 'items' } });
    const [{ gtin, sku }] = (await relay.query<{ gtin: string; sku: string }>(
      `select min(g.gtin) as gtin, i.sku from item i join item_pack g on g.item_id = i.id and g.level = 'unit' group by i.sku order by i.sku limit 1`,
    )) as [{ gtin: string; sku: string }];
    const one = await readPdf((await desk.ask('labels', { query: { what: 'items', codes: sku } })).body as Buffer);
    expect((await symbols(one.image)).map((s) => s.text)).toEqual([gtin]);
    const all = await readPdf((await desk.ask('labels', { query: { what: 'items' } })).body as Buffer);
    expect(all.texts).toHaveLength(Math.ceil(labels.length / 24));
    const { job, printer } = await desk.get('print', {
      body: { kind: 'labels', printer: 'LABEL-DOCK', labels: { what: 'carts', size: '62x29', codes: ['CART-02'] } },
    });
    expect(printer).toBe('LABEL-DOCK');
    expect((await readPdf((await desk.ask('printJobPdf', { id: job })).body as Buffer)).texts).toHaveLength(1);
    expect((await desk.refused('print', { body: { kind: 'labels' } })).code).toBe('labels-missing');
  });

  it('the API is described as OpenAPI 3.1, and shown', async () => {
    const { body } = await (await import('supertest')).default(relay.app).get('/api/openapi.json');
    expect(body).toMatchObject({ openapi: '3.1.0' });
    expect(Object.keys((body as { paths: object }).paths)).toContain('/api/orders/{id}/trail');
    const page = await (await import('supertest')).default(relay.app).get('/api/docs/');
    expect(page.text).toContain('swagger-ui');
  });
});
