import { stopServer } from './globalSetup.ts';
import { notSentTwice, SENT_TWICE } from './sentTwice.ts';

/**
 * Ends the database server of the tests.
 *
 * @throws Error where all tests ran and one of the changes that the contract has was never sent twice with one key
 */
export default async function teardown(): Promise<void> {
  await stopServer();
  const file = process.env[SENT_TWICE];
  const missing = file ? notSentTwice(file) : [];
  if (missing.length > 0) throw new Error(`No test sends these changes twice with one key: ${missing.join(', ')}`);
}
