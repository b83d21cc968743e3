import { connect, createServer, type Socket } from 'node:net';

/** A way to the database that a test can bend, cut and freeze. */
export interface Relay {
  port: number;
  /** Leads new connections to another port. */
  target: (port: number) => void;
  /** Ends every connection. */
  cut: () => void;
  /** Passes nothing on, and closes nothing, until it is thawed. */
  freeze: () => void;
  thaw: () => void;
  close: () => void;
}

/** Passes connections on to a port that may change. */
export async function startRelay(first: number): Promise<Relay> {
  let target = first;
  let frozen = false;
  const sockets = new Set<Socket>();
  const server = createServer((from) => {
    const to = connect(target, '127.0.0.1');
    for (const [one, other] of [
      [from, to],
      [to, from],
    ] as const) {
      sockets.add(one);
      if (frozen) one.pause();
      one.on('error', () => other.destroy());
      one.on('close', () => {
        sockets.delete(one);
        other.destroy();
      });
      one.pipe(other);
    }
    if (frozen) for (const one of [from, to]) one.pause();
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: (server.address() as { port: number }).port,
    target: (port) => (target = port),
    cut: () => sockets.forEach((socket) => socket.destroy()),
    freeze: () => {
      frozen = true;
      sockets.forEach((socket) => socket.pause());
    },
    thaw: () => {
      frozen = false;
      sockets.forEach((socket) => socket.resume());
    },
    close: () => {
      sockets.forEach((socket) => socket.destroy());
      server.close();
    },
  };
}
