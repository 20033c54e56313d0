import { run } from './main.ts';
import { openRelay } from './server.ts';

await run(process.env, openRelay, (address) => console.log(`Hand Relay is at ${address}`));
