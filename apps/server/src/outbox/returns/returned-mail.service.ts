import { Inject, Injectable, Logger, type OnApplicationBootstrap, type OnModuleDestroy } from '@nestjs/common';
import { LIMITS } from '@haycart/core';
import { SMTPServer, type SMTPServerDataStream } from 'smtp-server';
import type { Config } from '../../platform/config';
import { databaseFailure } from '../../platform/database/failure';
import { CONFIG } from '../../platform/tokens';
import { readReport } from './read-report';
import { ReturnAddresses } from './return-addresses';
import { ReturnNotes } from './return-notes.service';

/** How many may be talking at once, and how long each may be silent, in milliseconds. */
const MOST_TALKING = 50;
const LONGEST_SILENCE = 30_000;
const NO_SUCH_MAILBOX = 550;
const TOO_LONG = 552;
const LATER = 451;

/** Takes mail that comes back (SMTP, RFC 5321): a report that a mail of the outbox could not be delivered is noted with it. */
@Injectable()
export class ReturnedMail implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #log = new Logger('returned mail');
  #server: SMTPServer | null = null;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(ReturnNotes) private readonly notes: ReturnNotes,
    @Inject(ReturnAddresses) private readonly addresses: ReturnAddresses,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    const { returnPort, host } = this.config;
    if (returnPort === null) return;
    const server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['AUTH', 'STARTTLS'],
      disableReverseLookup: true,
      size: LIMITS.returnedMail.most,
      maxClients: MOST_TALKING,
      socketTimeout: LONGEST_SILENCE,
      closeTimeout: 1_000,
      onRcptTo: ({ address }, { envelope }, done) => {
        if (envelope.rcptTo.length || this.addresses.idOf(address) === null)
          done(saying(NO_SUCH_MAILBOX, 'Nothing was sent from this address'));
        else done();
      },
      onData: (stream, { envelope }, done) => {
        this.#take(stream, envelope.rcptTo[0]?.address ?? '').then(
          () => done(),
          (cause: Error) => done(cause),
        );
      },
    });
    // Whoever goes away in the middle ends their connection, and not the server.
    server.on('error', (cause: Error) => this.#log.debug(`A connection ended: ${cause.message}`));
    await new Promise<void>((resolve, reject) => {
      server.server.once('error', reject);
      server.listen(returnPort, host, resolve);
    });
    this.#server = server;
  }

  async onModuleDestroy(): Promise<void> {
    const server = this.#server;
    if (server) await new Promise<void>((resolve) => server.close(() => resolve()));
  }

  /** Reads all of it, and notes what it says before it is answered that it was taken. */
  async #take(stream: SMTPServerDataStream, address: string): Promise<void> {
    const chunks: Buffer[] = [];
    let size = 0;
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      size += chunk.length;
      if (size <= LIMITS.returnedMail.most) chunks.push(chunk);
    }
    if (size > LIMITS.returnedMail.most) throw saying(TOO_LONG, 'It is too long');
    const id = this.addresses.idOf(address);
    const why = await readReport(Buffer.concat(chunks)).catch(() => null);
    if (id === null || why === null) return;
    const isNoted = await this.notes.cameBack(id, why).catch((cause: unknown) => {
      this.#log.warn(`Mail that came back waits for the database: ${databaseFailure(cause)}.`);
      return false;
    });
    if (!isNoted) throw saying(LATER, 'It cannot be kept just now');
  }
}

function saying(responseCode: number, text: string): Error {
  return Object.assign(new Error(text), { responseCode });
}
