import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { OperatorError } from '../operatorError.ts';

/** Major version of the PostgreSQL inside the embedded database: it reads folders of its own kind alone. */
const EMBEDDED_MAJOR = '18';

/** A folder or backup that another major version of the database wrote. */
export class OtherDatabaseVersion extends OperatorError {
  constructor(what: string, major: string) {
    super(
      `${what} was written with database version ${major}; this version of Hand Relay has ${EMBEDDED_MAJOR}. Carry it over: with the version of Hand Relay that wrote it, npm run dump -- FILE; then with this one, into an empty folder, npm run load -- FILE. Nothing was changed.`,
    );
  }
}

/**
 * Refuses a cluster that this version cannot read.
 *
 * @throws OtherDatabaseVersion
 */
export function mustBeReadable(folder: string): void {
  const file = join(folder, 'cluster', 'PG_VERSION');
  if (existsSync(file)) mustBeOurs(`The data folder ${folder}`, readFileSync(file, 'utf8'));
}

/** @throws OtherDatabaseVersion where the text of a `PG_VERSION` names another major version than ours */
export function mustBeOurs(what: string, version: string): void {
  const major = version.trim();
  if (major !== EMBEDDED_MAJOR) throw new OtherDatabaseVersion(what, major);
}
