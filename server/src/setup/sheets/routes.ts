import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { endpoints, type setupHistory, type sheetFileBody } from '@hand-relay/contract';
import {
  cellOf,
  csvOf,
  keyOf,
  makeFloor,
  matchColumns,
  readSheet,
  sheets,
  type Row,
  type SheetName,
} from '@hand-relay/core/reading/sheets';
import { binsThere, floorOf } from '../../floor/plan/index.ts';
import { badgeSheet, countSheet, labelChoices, labels } from '../documents/index.ts';
import {
  iso,
  notFound,
  Refusal,
  rows,
  mountEndpoint,
  type Routes,
  type Platform,
  type ReadFile,
} from '../../platform/index.ts';
import { makeSite, sitesOfHouse } from './createSite.ts';
import { firstRun, isEmpty } from './first.ts';
import { defineImport, importAnswer, putImport } from './jobs.ts';
import { writeRows, mustWrite, undoEntry } from './writeRows.ts';
import { paperFor, settingsOf } from '../settings/index.ts';
import { kinds } from './kinds/index.ts';
import { codeWarnings } from './codeWarnings.ts';
import { sizeWarnings } from './sizeWarnings.ts';
import { previewRows, withCounts } from './previewRows.ts';
import { savePicture, readPicture } from './pictures.ts';
import { overview } from './overview.ts';
import { stuckAt } from './stuck.ts';
import { changeSite, readSite } from './site.ts';

function nameOf(id: string): SheetName {
  if (!Object.hasOwn(sheets, id)) throw notFound('sheet', id);
  return id as SheetName;
}

function readSent(platform: Platform, sheet: SheetName, body: z.output<typeof sheetFileBody>): Promise<ReadFile> {
  const bytes = new Uint8Array(Buffer.from(body.data, 'base64'));
  return platform.compute.readFile({ name: body.file, bytes, sheet, matching: body.matching ?? {} });
}

export function setupRoutes(routes: Routes): void {
  defineImport(routes.platform);

  mountEndpoint(routes, endpoints.stuck, ({ platform, actor }) => stuckAt(platform.db, actor.siteId, platform.clock()));
  mountEndpoint(routes, endpoints.setupState, async ({ platform }) => ({ empty: await isEmpty(platform.db) }));
  mountEndpoint(routes, endpoints.firstRun, async ({ platform, body }) => {
    await firstRun(platform, body);
    return {};
  });
  mountEndpoint(routes, endpoints.setupOverview, ({ platform, actor }) => overview(platform, actor.siteId));

  mountEndpoint(routes, endpoints.site, async ({ platform, actor }) => ({
    site: await readSite(platform.db, actor.siteId),
  }));
  mountEndpoint(routes, endpoints.changeSite, async ({ platform, actor, body, change }) => {
    await change((current) => changeSite(current, body));
    return { site: await readSite(platform.db, actor.siteId) };
  });

  mountEndpoint(routes, endpoints.sites, async ({ platform, actor }) => ({
    sites: await sitesOfHouse(platform.db, actor.siteId),
  }));
  mountEndpoint(routes, endpoints.makeSite, ({ body, change }) =>
    change(async (current) => ({ site: await makeSite(current, body) })),
  );

  mountEndpoint(routes, endpoints.savePicture, ({ body, change }) =>
    change(async (current) => ({ picture: await savePicture(current, body.data) })),
  );
  mountEndpoint(routes, endpoints.picture, async ({ platform, id, res }) => {
    const { type, bytes } = await readPicture(platform.db, id);
    // Named by its bytes: it never changes.
    res.type(type).setHeader('Cache-Control', 'private, max-age=31536000, immutable').send(bytes);
  });

  mountEndpoint(routes, endpoints.sheetExample, ({ id, res }) => {
    const sheet = sheets[nameOf(id)];
    const row = Object.fromEntries(sheet.columns.map((c) => [c.name, c.example]));
    const text = csvOf(
      { ...sheet, columns: sheet.columns.map(({ name, example }) => ({ name, example, type: { kind: 'text' } })) },
      [row],
    );
    res.attachment(`${id}-example.csv`).type('text/csv').send(text);
    return Promise.resolve();
  });
  mountEndpoint(routes, endpoints.sheetFile, async ({ platform, actor, id, query, res }) => {
    const name = nameOf(id);
    const list = (await kinds[name].read(platform.db, actor.siteId)).filter((r) => r['retired'] !== true);
    res.attachment(`${name}.${query.format}`);
    if (query.format === 'csv') res.type('text/csv').send(csvOf(sheets[name], list));
    else
      res
        .type('application/vnd.openxmlformats-officedocument.spreadsheetml.sheet')
        .send(Buffer.from(await platform.compute.writeWorkbook(workbookOf(name, list))));
  });
  mountEndpoint(routes, endpoints.sheetRows, async ({ platform, actor, id }) => ({
    rows: await kinds[nameOf(id)].read(platform.db, actor.siteId),
  }));

  mountEndpoint(routes, endpoints.previewSheet, async ({ platform, actor, id, body }) => {
    const name = nameOf(id);
    const read = await readSent(platform, name, body);
    const looked = await previewRows(platform.db, actor, name, read.rows);
    const thisYear = platform.clock().getUTCFullYear();
    const warnings = await codeWarnings(platform.db, actor.siteId, name, looked.good, thisYear);
    return withCounts(looked, read, [...warnings, ...sizeWarnings(name, looked.good)]);
  });
  mountEndpoint(routes, endpoints.importSheet, async ({ platform, actor, id, body, change }) => {
    const name = nameOf(id);
    mustWrite(actor, name);
    const read = await readSent(platform, name, body);
    if (read.heading.length === 0) throw new Refusal('not-a-table', { got: body.file });
    const { good, errors } = await previewRows(platform.db, actor, name, read.rows);
    const input = { name, rows: good.map((r) => r.values), file: body.file };
    const job = await change((current) => putImport(current, platform, input, [...read.errors, ...errors]));
    await platform.jobs.wake();
    return { job };
  });
  mountEndpoint(routes, endpoints.job, async ({ platform, actor, id }) =>
    importAnswer(await platform.jobs.find(actor.siteId, id)),
  );
  mountEndpoint(routes, endpoints.cancelJob, async ({ platform, actor, id, change }) => {
    await platform.jobs.find(actor.siteId, id);
    await change((current) => platform.jobs.cancel(current, { id }));
    return importAnswer(await platform.jobs.find(actor.siteId, id));
  });

  mountEndpoint(routes, endpoints.changeSheet, ({ actor, id, body, change }) => {
    const name = nameOf(id);
    mustWrite(actor, name);
    return change(async (current) => {
      const typed = readTyped(name, body.rows);
      const looked = await previewRows(current.tx, actor, name, typed.rows);
      const { good, there } = looked;
      const errors = [...typed.errors, ...looked.errors];
      if (errors.length > 0 || good.length === 0) return { entry: null, changed: 0, errors };
      const entry = await writeRows(
        current,
        name,
        good.map((r) => r.values),
        there,
      );
      current.publish('setup', []);
      return { entry, changed: good.length, errors: [] };
    });
  });
  mountEndpoint(routes, endpoints.retireSheetRows, ({ actor, id, body, change }) => {
    const name = nameOf(id);
    mustWrite(actor, name);
    return change(async (current) => {
      const read = await kinds[name].read(current.tx, actor.siteId, body.rows);
      const there = new Map(read.map((r) => [keyOf(sheets[name], r), r]));
      // A row that is named twice is one row.
      const keys = new Set(body.rows.map((row) => keyOf(sheets[name], row)));
      const list = [...keys].map((key) => there.get(key)).filter((row) => row !== undefined);
      const errors = body.retired ? await kinds[name].refusesRetiring(current.tx, actor.siteId, list) : [];
      if (errors.length > 0 || list.length === 0) return { entry: null, changed: 0, errors };
      const entry = await writeRows(
        current,
        name,
        list.map((row) => ({ ...row, retired: body.retired })),
        there,
      );
      current.publish('setup', []);
      return { entry, changed: list.length, errors: [] };
    });
  });
  mountEndpoint(routes, endpoints.setupUndo, ({ body, change }) =>
    change(async (current) => {
      const undone = await undoEntry(current, body.entry);
      current.publish('setup', []);
      return { ...undone, errors: [] };
    }),
  );
  mountEndpoint(routes, endpoints.setupHistory, async ({ platform, actor }) => ({
    entries: await rows<z.input<typeof setupHistory>['entries'][number]>(
      platform.db,
      sql`select coalesce(j.facts->>'entry', j.id::text) as id, ${iso(sql`j.at`)} as at, p.name as person, j.kind,
                 j.facts - 'before' - 'after' as facts, j.facts->>'sheet' as sheet, part.rows,
                 j.facts->>'file' as file,
                 j.facts->>'undoes' is not null as undoes,
                 exists (select 1 from journal u where u.site_id = j.site_id and u.kind = 'setup-changed' and u.facts->>'undoes' = j.facts->>'entry') as undone
          from journal j left join person p on p.id = j.person_id
          left join lateral (
            select sum((o.facts->>'rows')::int)::int as rows, max(o.id) as last from journal o
            where o.site_id = j.site_id and o.kind = 'setup-changed' and o.facts->>'entry' = j.facts->>'entry'
          ) part on true
          where j.site_id = ${actor.siteId} and (part.last is null or part.last = j.id)
            and j.kind in ('setup-changed', 'settings-changed', 'site-changed', 'site-made', 'device-signed-out', 'account-changed') order by j.id desc limit 200`,
    ),
  }));

  mountEndpoint(routes, endpoints.makeFloor, async ({ platform, actor, body, change }) => {
    const { floor } = await floorOf(platform.db, actor.siteId);
    const made = makeFloorOrRefuse(body, floor, await binsThere(platform.db, actor.siteId));
    const { good, errors } = await previewRows(
      platform.db,
      actor,
      'bins',
      made.bins.map((values, i) => ({ row: i + 1, values })),
    );
    if (errors.length > 0) throw new Refusal('unknown-zone', { zone: errors[0]!.value });
    const { crossAisles } = made.floor;
    const input = { name: 'bins' as const, rows: good.map((r) => r.values), crossAisles };
    const job = await change((current) => putImport(current, platform, input, []));
    await platform.jobs.wake();
    return { job };
  });
  mountEndpoint(routes, endpoints.badges, async ({ platform, actor, res }) => {
    const pdf = await badgeSheet(platform, actor.siteId);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="badges.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.labelChoices, async ({ platform, actor, query }) => ({
    labels: await labelChoices(platform.db, actor.siteId, query.what),
  }));
  mountEndpoint(routes, endpoints.labels, async ({ platform, actor, query, res }) => {
    const { language } = await paperFor(platform.db, actor.siteId, actor.personId);
    const pdf = await labels(platform, actor.siteId, query, language);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="labels.pdf"').send(pdf);
  });
  mountEndpoint(routes, endpoints.countSheet, async ({ platform, actor, res }) => {
    const { paper } = await settingsOf(platform.db, actor.siteId);
    const pdf = await countSheet(paper);
    res.type('application/pdf').setHeader('Content-Disposition', 'inline; filename="counts.pdf"').send(pdf);
  });
}

/** Rows as a person typed them, read as those of a file are. */
function readTyped(name: SheetName, list: readonly Row[]) {
  const heading = [...new Set(list.flatMap((row) => Object.keys(row)))];
  const table = { heading, rows: list.map((row, i) => ({ row: i + 1, cells: heading.map((h) => row[h] ?? null) })) };
  return readSheet(sheets[name], table, matchColumns(sheets[name], heading));
}

/** Rows as a workbook's cells, the heading first. */
function workbookOf(name: SheetName, list: readonly Row[]): (string | number)[][] {
  const columns = sheets[name].columns.filter((c) => !('secret' in c));
  return [columns.map((c) => c.name), ...list.map((row) => columns.map((c) => cellOf(c, row)))];
}

function makeFloorOrRefuse(...of: Parameters<typeof makeFloor>) {
  try {
    return makeFloor(...of);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new Refusal('malformed', {}, [{ path: 'pattern', message: error.message }]);
  }
}
