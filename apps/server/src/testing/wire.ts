import { connect, createServer, type Server, type Socket } from 'node:net';

/** A wire to a server that can be cut and mended: what a lost connection looks like from this side. */
export class Wire {
  port = 0;
  private cut = false;
  private readonly sockets = new Set<Socket>();
  private readonly server: Server;

  constructor(target: number) {
    this.server = createServer((near) => {
      if (this.cut) return near.destroy();
      const far = connect(target, '127.0.0.1');
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        this.sockets.add(one);
        one.pipe(other);
        one.on('error', () => other.destroy());
        one.on('close', () => {
          this.sockets.delete(one);
          other.destroy();
        });
      }
    });
  }

  async listen(): Promise<this> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', () => done()));
    this.port = (this.server.address() as { port: number }).port;
    return this;
  }

  sever(): void {
    this.cut = true;
    this.sockets.forEach((socket) => socket.destroy());
  }

  mend(): void {
    this.cut = false;
  }

  async close(): Promise<void> {
    this.sever();
    await new Promise<void>((done) => this.server.close(() => done()));
  }
}
