import { spawn, type ChildProcess } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { fileURLToPath } from 'node:url';

/** The stand-in for the domain name system, as a process of its own. */
export class TestNameServer {
  private constructor(
    readonly address: string,
    private readonly process: ChildProcess,
  ) {}

  static async start(): Promise<TestNameServer> {
    const port = await freePort();
    const script = fileURLToPath(new URL('../../../stand-ins/src/name-server.mjs', import.meta.url));
    const child = spawn(process.execPath, [script], {
      env: { ...process.env, HAYCART_HOST: '127.0.0.1', HAYCART_PORT: String(port - 2) },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise((resolve, reject) => {
      child.stdout.once('data', resolve);
      child.once('exit', (code) => reject(new Error(`The stand-in for names ended with ${code}.`)));
    });
    return new TestNameServer(`127.0.0.1:${port}`, child);
  }

  /** Enters a text at a name; without one, removes what is there. */
  async enter(name: string, text = ''): Promise<void> {
    const answer = await fetch(`http://${this.address}/`, {
      method: 'POST',
      body: new URLSearchParams({ name, text }),
    });
    if (!answer.ok) throw new Error(`The stand-in for names answered ${answer.status}.`);
  }

  stop(): void {
    this.process.kill();
  }
}

function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });
}
