export { BadSetting, run, settings } from './main.ts';
export { hashSecret } from './setup/people/index.ts';
export { lockFolder, productFolder, randomId, recordset, type Db } from './platform/index.ts';
export { openRelay, type Relay, type ServerOptions } from './server.ts';
export * as tables from './tables/index.ts';
