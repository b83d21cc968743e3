import type { LoggerService } from '@nestjs/common';
import { destination, pino, type DestinationStream, type Logger as Pino } from 'pino';
import type { Config } from './config';

/**
 * Structured logs, one JSON object a line. They never hold personal data: requests are not logged with their address or
 * body, and what is thrown by the database or by parsing is logged by kind, without its message and values.
 */
export class PinoLogger implements LoggerService {
  readonly #pino: Pino;

  constructor({ logLevel }: Pick<Config, 'logLevel'>) {
    this.#pino = pino({ level: logLevel, base: null, serializers: { err: safeError } }, standardOutput());
  }

  log(message: unknown, ...rest: unknown[]): void {
    this.#write(rest.at(-1) === 'security' ? 'info' : 'debug', message, rest);
  }
  error(message: unknown, ...rest: unknown[]): void {
    this.#write('error', message, rest);
  }
  warn(message: unknown, ...rest: unknown[]): void {
    this.#write('warn', message, rest);
  }
  debug(message: unknown, ...rest: unknown[]): void {
    this.#write('debug', message, rest);
  }

  #write(level: 'debug' | 'info' | 'warn' | 'error', message: unknown, rest: unknown[]): void {
    const area = rest.pop();
    const text = typeof message === 'string' ? message : rest.find((part) => typeof part === 'string');
    this.#pino[level]({ ...(typeof message === 'object' ? message : {}), area }, text as string | undefined);
  }
}

/** Standard output, on which a full disk or a closed pipe loses lines and ends nothing. */
function standardOutput(): DestinationStream {
  const output = destination({ fd: 1, sync: true });
  output.on('error', () => {});
  return output;
}

/** An error without its message, which may quote what somebody typed. */
function safeError(thrown: unknown): object {
  if (!(thrown instanceof Error)) return { type: typeof thrown };
  const {
    name,
    stack = '',
    code,
    table,
    constraint,
  } = thrown as Error & Record<'code' | 'table' | 'constraint', string | undefined>;
  const at = stack
    .split('\n')
    .filter((line) => line.trimStart().startsWith('at '))
    .slice(0, 8);
  return { type: name, code, table, constraint, at };
}
