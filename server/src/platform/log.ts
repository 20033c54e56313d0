import { accessSync, constants, existsSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { pino, type Logger } from 'pino';
import { createStream, type Generator } from 'rotating-file-stream';
import { OperatorError } from './operatorError.ts';

/** A log in a file of its own, begun again when it is large or a day old. */
export interface LogFile {
  path: string;
  /** Size at which the next one begins. */
  megabytes: number;
  /** How many finished ones stay, packed. */
  keep: number;
}

export interface Log {
  logger: Logger;
  /** Writes what is still in memory. */
  close: () => Promise<void>;
}

/** The name of a finished file says when it ended: relay-20261129-020000-1.log.gz. */
const finished =
  (name: string): Generator =>
  (at, index) => {
    if (!at) return name;
    const digits = new Date(at).toISOString().replace(/[-:]/g, '').slice(0, 15).replace('T', '-');
    return `${name.replace(/\.log$/, '')}-${digits}-${index ?? 1}.log.gz`;
  };

/**
 * Opens the log: on the standard output, or in a file that is rotated.
 *
 * @throws OperatorError when the file's folder is not there or cannot be written
 */
export function openLog(level: string, file?: LogFile): Log {
  if (!file) return { logger: pino({ level }), close: () => Promise.resolve() };
  const folder = dirname(file.path);
  try {
    accessSync(folder, constants.W_OK);
    if (existsSync(file.path)) accessSync(file.path, constants.W_OK);
  } catch {
    throw new OperatorError(
      `LOG_FILE must be a file in a folder that is there and can be written, received "${file.path}".`,
    );
  }
  const stream = createStream(finished(basename(file.path)), {
    path: folder,
    size: `${file.megabytes}M`,
    interval: '1d',
    maxFiles: file.keep,
    compress: 'gzip',
    mode: 0o600,
    history: `.${basename(file.path)}.history`,
  });
  // A full disk takes the log, not the server: it is said where somebody may still read it.
  stream.on('error', (error: Error) => void process.stderr.write(`The log cannot be written: ${error.message}\n`));
  return {
    logger: pino({ level }, stream),
    close: () => new Promise((resolve) => stream.end(() => resolve())),
  };
}
