import { Duplex } from 'node:stream';
import type { MessagePort } from 'node:worker_threads';

/**
 * A stream that carries the PostgreSQL wire protocol over a message port, in place of a socket: so the ordinary
 * client talks to the embedded database in its own thread as it talks to a server.
 */
export class PortStream extends Duplex {
  private readonly port: MessagePort;

  constructor(port: MessagePort) {
    super();
    this.port = port;
    port.on('message', (bytes: Uint8Array | null) =>
      this.push(bytes === null ? null : Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)),
    );
  }

  /** The client calls what a socket has; there is nothing to connect. */
  connect(): this {
    process.nextTick(() => this.emit('connect'));
    return this;
  }

  setNoDelay(): this {
    return this;
  }

  setKeepAlive(): this {
    return this;
  }

  ref(): this {
    this.port.ref();
    return this;
  }

  unref(): this {
    this.port.unref();
    return this;
  }

  override _read(): void {}

  override _write(chunk: Buffer, _encoding: string, done: (error?: Error | null) => void): void {
    this.port.postMessage(new Uint8Array(chunk));
    done();
  }

  override _final(done: (error?: Error | null) => void): void {
    this.push(null);
    done();
  }

  override _destroy(error: Error | null, done: (error: Error | null) => void): void {
    done(error);
  }
}
