import { endpoints } from '@hand-relay/contract';
import { Refusal, serve, type Database, type Doors } from '../platform/index.ts';
import { backupName, backupOf } from './backup.ts';

export function keepRoutes(doors: Doors, database: Database): void {
  serve(doors, endpoints.backup, async ({ platform, res }) => {
    const bytes = await backupOf(database);
    if (!bytes) throw new Refusal(409, 'no-backup');
    res.attachment(backupName(platform.clock())).type('application/gzip').send(Buffer.from(bytes));
  });
}
