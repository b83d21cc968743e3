import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

/** A mail that the stand-in took. */
export interface TakenMail {
  number: number;
  from: string;
  /** Where it comes back to. */
  returnsTo: string;
  to: string[];
  subject: string;
  messageId: string;
  headers: Record<string, string>;
  text: string;
  html: string | null;
}

/** A mail server, in a process of its own. */
export interface MailStandIn {
  /** The port of its SMTP, on 127.0.0.1. */
  port: number;
  received(): Promise<TakenMail[]>;
  forget(): Promise<unknown>;
  /** Has it answer otherwise: `{status, delayMs, times, loseAnswer}`. */
  behave(behaviour: object): Promise<unknown>;
  stop(): void;
}

export async function startMailStandIn(): Promise<MailStandIn> {
  const program = fileURLToPath(new URL('../../../stand-ins/src/mail.mjs', import.meta.url));
  const child = spawn(process.execPath, [program], {
    env: { ...process.env, HAYCART_MAIL_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const [line] = (await once(createInterface(child.stdout), 'line')) as [string];
  const [, page, port] = /on (\S+) smtp (\d+)/.exec(line)!;
  const ask = (method: string, path: string, body?: object) =>
    fetch(`${page}${path}`, { method, ...(body ? { body: JSON.stringify(body) } : {}) });
  return {
    port: Number(port),
    received: async () => (await (await ask('GET', '/received')).json()) as TakenMail[],
    forget: () => ask('DELETE', '/received'),
    behave: (behaviour) => ask('PUT', '/behaviour', behaviour),
    stop: () => void child.kill(),
  };
}

/** How a workspace is told to send by the stand-in. */
export const serverSetting = (outside: MailStandIn, more: object = {}) => ({
  host: '127.0.0.1',
  port: outside.port,
  security: 'none',
  fromName: 'Weir Gardens',
  fromAddress: 'hello@weir.example',
  ...more,
});
