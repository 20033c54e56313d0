import supertest from 'supertest';
import { openEmpty, personOf } from './relay.ts';
import { setupOf } from './sheets.ts';
import { pickOne, startWave, takeIn } from './steps.ts';

describe('a house of its own', () => {
  const site = { name: 'Two Rivers Spares', timeZone: 'Europe/Berlin', currency: 'EUR', gs1Prefix: '9524321' };
  const first = { name: 'Ove Strand', login: 'Ove', password: 'long enough' };

  it('ships its first order from nothing but its own files, on a floor unlike any other', async () => {
    const relay = await openEmpty();
    try {
      const agent = supertest.agent(relay.app);
      const nobody = personOf(agent);
      expect(await nobody.get('setupState')).toEqual({ empty: true });
      const token = (await relay.setupToken())!;
      expect(
        await nobody.refused('firstRun', { body: { token, site: { ...site, timeZone: 'Mars/North' }, person: first } }),
      ).toMatchObject({
        fields: [{ path: 'site.timeZone' }],
      });
      expect(await nobody.refused('firstRun', { body: { token: 'A GUESS', site, person: first } })).toMatchObject({
        code: 'setup-token',
        fields: [{ path: 'token' }],
      });
      await nobody.get('firstRun', { body: { token: token.toLowerCase().replaceAll('-', ' '), site, person: first } });
      expect((await nobody.refused('firstRun', { body: { token, site, person: first } })).code).toBe('not-empty');
      expect(await relay.setupToken()).toBeNull();
      expect(await nobody.get('setupState')).toEqual({ empty: false });
      await agent.post('/api/session').send({ name: 'ove', password: 'long enough' }).expect(200);
      const ove = personOf(agent);
      const { take, ended } = setupOf(ove);
      expect((await ove.get('setupOverview')).missing.map((m) => m.why)).toEqual([
        'zones',
        'bins',
        'items',
        'stock',
        'customers',
        'lanes',
        'benches',
        'cartons',
        'carts',
        'carriers',
        'departures',
      ]);
      await take('zones', 'zone;name\nracks;High racks\n');
      const pattern = {
        firstAisle: '07',
        aisles: 3,
        bays: 5,
        levels: 2,
        sides: 1,
        bayMetres: 2.4,
        aisleMetres: 6,
        crossEvery: 0,
        crossMetres: 3,
        naming: '{aisle}.{bay}.{level}',
        zone: 'racks',
      };
      expect(await ended((await ove.get('makeFloor', { body: pattern })).job)).toMatchObject({
        state: 'done',
        done: 30,
      });
      // A German spreadsheet: semicolons, decimal commas, headings of its own.
      await take('items', 'Artikel;Bezeichnung;L;B;H;Gewicht\nW-1;Welle;400;60;60;2100\nL-2;Lager;80;80;40;350\n', {
        item: 'Artikel',
        name: 'Bezeichnung',
        length_mm: 'L',
        width_mm: 'B',
        height_mm: 'H',
        weight_g: 'Gewicht',
      });
      await take('stock', 'bin,item,units\n07.02.1,W-1,12\n09.05.2,L-2,40\n');
      await take('customers', 'customer,name\nK1,Hof Lindau\n');
      await take('places', 'place,kind\nTOR-SPUR,lane\nTISCH 1,bench\n');
      await take(
        'cartons',
        'carton,name,inner_length_mm,inner_width_mm,inner_height_mm,tare_g,max_weight_g\nKISTE-5,Kiste,600,400,400,900,25000\n',
      );
      await take('carts', 'cart,type,positions\nWAGEN 1,Wagen,6\n');
      await take('carriers', 'carrier,service,tracking,prefix,digits\nEilbote,Paket,prefix,EB,9\n');
      await take(
        'departures',
        'departure,carrier,service,cut_off,days,channel,lane\nAbend,Eilbote,Paket,17:30,mon tue wed thu fri sat sun,web,TOR-SPUR\n',
      );
      await take('people', 'person,name,roles,badge,pin\np1,Ida Falk,picker packer,AUSWEIS-1,1357\n');
      expect((await ove.get('setupOverview')).missing).toEqual([]);

      const order = await takeIn(ove, {
        number: 'ERSTE',
        customer: 'K1',
        lines: [
          ['W-1', 2],
          ['L-2', 5],
        ],
      });
      const wave = await startWave(ove, [order]);
      const [run] = (await ove.get('wave', { id: wave })).runs;
      const device = supertest.agent(relay.app);
      await device.post('/api/session').send({ badge: 'AUSWEIS-1', pin: '1357' }).expect(200);
      const ida = personOf(device);
      expect((await ida.refused('takeRun', { id: run!.id, body: { cart: 'WAGEN 2' } })).code).toBe('not-a-cart');
      const { picks } = await ida.get('takeRun', { id: run!.id, body: { cart: 'wagen 1' } });
      expect(picks.map((p) => p.step.bin)).toEqual(['07.02.1', '09.05.2']);
      const [pick] = picks;
      const scan = (text: string) =>
        ida.get('runInput', { id: run!.id, body: { pick: pick!.step.id, input: { kind: 'scan', text } } });
      expect(await scan('07.01.1')).toMatchObject({ verdict: 'refused', expected: '07.02.1' });
      // Codes of the house's own form; an item without any barcode number is scanned by its own.
      for (const code of ['07.02.1', 'W-1', 'w-1']) expect(await scan(code)).toMatchObject({ verdict: 'accepted' });
      expect(await scan('WAGEN 1-1')).toMatchObject({ verdict: 'done', units: 2 });
      await pickOne(ida, run!.id, picks[1]!, 'WAGEN 1');
      await ida.get('leaveRun', { id: run!.id, body: { lane: 'tor-spur' } });
      const put = (text: string) =>
        ida.get('packInput', { id: order, body: { bench: 'TISCH 1', input: { kind: 'scan', text } } });
      expect(await put('KISTE-5')).toMatchObject({ verdict: 'open' });
      for (const code of ['W-1', 'W-1', 'L-2', 'L-2', 'L-2', 'L-2', 'L-2'])
        expect(await put(code)).toMatchObject({ verdict: 'put' });
      expect(await put('DO-CLOSE')).toMatchObject({
        sscc: expect.stringMatching(/^09524321\d{10}$/) as string,
        lane: 'TOR-SPUR',
      });
      const { shipments } = await ove.get('dock');
      await ove.get('tracking', { id: shipments[0]!.shipment, body: { from: 'carrier' } });
      expect(await ove.get('confirm', { id: shipments[0]!.shipment, body: {} })).toMatchObject({ state: 'confirmed' });
      expect((await setupOf(ove).rows('stock')).map((r) => [r['bin'], r['units']])).toEqual([
        ['07.02.1', 10],
        ['09.05.2', 35],
      ]);
    } finally {
      await relay.close();
    }
  });
});
