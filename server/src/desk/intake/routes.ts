import { createHash } from 'node:crypto';
import { endpoints, type OrderSenders } from '@hand-relay/contract';
import { sql } from 'drizzle-orm';
import { mountEndpoint, rows, type Db, type Routes, type Tx } from '../../platform/index.ts';
import { exampleFile } from './example.ts';
import { folderOf } from './folder.ts';
import { importsOf, undoImport } from './imports.ts';
import { intake } from './intake.ts';
import { forgetSender, sendersOf } from './senders.ts';

/** @param folder that is watched for order files; null where none is */
export function intakeRoutes(routes: Routes, folder: string | null): void {
  const senders = async (on: Db | Tx, siteId: string): Promise<OrderSenders> => {
    const [site] = await rows<{ code: string }>(on, sql`select code from site where id = ${siteId}`);
    return { senders: await sendersOf(on, siteId), folder: folder && site ? folderOf(folder, site.code) : null };
  };
  mountEndpoint(routes, endpoints.orderExample, async ({ platform, actor, res }) => {
    res
      .attachment('orders-example.csv')
      .type('text/csv')
      .send(await exampleFile(platform, actor.siteId));
  });
  mountEndpoint(routes, endpoints.intake, ({ platform, actor, body, req }) => {
    const hash = createHash('sha256').update(JSON.stringify(req.body)).digest('base64url');
    return intake(platform, actor, { key: req.get('idempotency-key')!, request: `intake ${hash}` }, body);
  });
  mountEndpoint(routes, endpoints.orderSenders, ({ platform, actor }) => senders(platform.db, actor.siteId));
  mountEndpoint(routes, endpoints.forgetSender, ({ body, change }) =>
    change(async (current) => {
      await forgetSender(current, body.name);
      current.publish('imports', []);
      return senders(current.tx, current.actor.siteId);
    }),
  );
  mountEndpoint(routes, endpoints.orderImports, async ({ platform, actor, query }) => ({
    imports: await importsOf(platform.db, actor.siteId, query.find),
  }));
  mountEndpoint(routes, endpoints.undoImport, ({ id, change }) => change((current) => undoImport(current, id)));
}
