import { describe, expect, test } from '@jest/globals';
import { HttpException } from '@nestjs/common';
import { ERROR_CODES, type ErrorCode } from '@haycart/api';
import { ConfigError, readConfig } from './config';
import { databaseFailure, mayPass } from './database/failure';
import { ProblemError } from './errors/problem-error';
import { asProblem } from './errors/problem-filter';
import { pageOf, readCursor, readLimit } from './paging';

const DATABASE_URL = 'postgresql://haycart@127.0.0.1/haycart';

describe('the configuration', () => {
  test('has sound defaults', () => {
    expect(readConfig({ DATABASE_URL })).toMatchObject({
      host: '127.0.0.1',
      port: 4600,
      role: 'all',
      logLevel: 'info',
      demo: false,
      landingPort: null,
      setupCode: null,
      returnPort: null,
      nameServer: null,
      background: true,
      privateTargets: [],
    });
    expect(
      readConfig({
        DATABASE_URL,
        HAYCART_TRUSTED_PROXIES: '127.0.0.1, 10.0.0.0/8',
        HAYCART_PUBLIC_URL: 'https://crm.example/',
        HAYCART_OPEN: 'docs',
        HAYCART_JOBS: 'off',
        HAYCART_PRIVATE_TARGETS: '10.1.0.0/16',
        HAYCART_SECRET_KEY: Buffer.alloc(32, 1).toString('base64'),
      }),
    ).toMatchObject({
      trustedProxies: ['127.0.0.1', '10.0.0.0/8'],
      publicUrl: 'https://crm.example',
      open: ['docs'],
      background: false,
      privateTargets: ['10.1.0.0/16'],
      secretKeys: [Buffer.alloc(32, 1)],
    });
    expect(readConfig({ DATABASE_URL, HAYCART_PORT: '5000', HAYCART_DEMO: '1' })).toMatchObject({
      port: 5000,
      demo: true,
      landingPort: 5001,
    });
  });

  test.each([
    [{}, 'DATABASE_URL'],
    [{ DATABASE_URL: 'mysql://x' }, 'DATABASE_URL'],
    [{ DATABASE_URL, HAYCART_PORT: 'http' }, 'HAYCART_PORT'],
    [{ DATABASE_URL, HAYCART_PORT: '99999' }, 'HAYCART_PORT'],
    [{ DATABASE_URL, HAYCART_PORT: '46.5' }, 'HAYCART_PORT'],
    [{ DATABASE_URL, HAYCART_ROLE: 'king' }, 'HAYCART_ROLE'],
    [{ DATABASE_URL, HAYCART_LOG: 'loud' }, 'HAYCART_LOG'],
    [{ DATABASE_URL, HAYCART_DNS: 'ns.example' }, 'HAYCART_DNS'],
    [{ DATABASE_URL, HAYCART_RETURN_PORT: 'mail' }, 'HAYCART_RETURN_PORT'],
    [{ DATABASE_URL, DATABASE_OWNER_URL: 'mysql://x' }, 'DATABASE_OWNER_URL'],
    [{ DATABASE_URL, HAYCART_TRUSTED_PROXIES: '10.0.0.0/99' }, 'HAYCART_TRUSTED_PROXIES'],
    [{ DATABASE_URL, HAYCART_PUBLIC_URL: 'crm.example' }, 'HAYCART_PUBLIC_URL'],
    [{ DATABASE_URL, HAYCART_PUBLIC_URL: 'https://crm.example/app' }, 'HAYCART_PUBLIC_URL'],
    [{ DATABASE_URL, HAYCART_OPEN: 'everything' }, 'HAYCART_OPEN'],
    [{ DATABASE_URL, HAYCART_JOBS: 'sometimes' }, 'HAYCART_JOBS'],
    [{ DATABASE_URL, HAYCART_PRIVATE_TARGETS: 'inside' }, 'HAYCART_PRIVATE_TARGETS'],
    [{ DATABASE_URL, HAYCART_SECRET_KEY: 'short' }, 'HAYCART_SECRET_KEY'],
  ])('%j is refused, naming the variable', (env, name) => {
    expect(() => readConfig(env)).toThrow(ConfigError);
    expect(() => readConfig(env)).toThrow(name);
  });
});

describe('what the database throws', () => {
  const thrown = (code: string, message = '') => Object.assign(new Error(message), { code });

  test.each([
    ['ECONNREFUSED', 'unreachable', true],
    ['57P01', 'unreachable', true],
    ['08006', 'unreachable', true],
    ['53300', 'unreachable', true],
    ['53100', 'full', true],
    ['40001', 'conflict', true],
    ['40P01', 'conflict', true],
    ['22P02', 'refused', false],
    ['23505', 'refused', false],
    ['42601', 'other', false],
  ])('%s means %s', (code, meaning, passes) => {
    expect([databaseFailure(thrown(code)), mayPass(thrown(code))]).toEqual([meaning, passes]);
    expect(databaseFailure(new Error('wrapped', { cause: thrown(code) }))).toBe(meaning);
  });

  test('without a code is told by its words', () => {
    expect(databaseFailure(new Error('Connection terminated unexpectedly'))).toBe('unreachable');
    expect(databaseFailure('nonsense')).toBe('other');
  });
});

describe('problems', () => {
  test('carry their status, a stable code and a sentence', () => {
    for (const code of Object.keys(ERROR_CODES) as ErrorCode[]) {
      const { status, body } = new ProblemError(code, 'Do this.');
      expect(body.call(new ProblemError(code, 'Do this.'))).toMatchObject({ status, code, detail: 'Do this.' });
    }
  });

  test.each<[unknown, ErrorCode, string | undefined]>([
    [new HttpException('x', 404), 'not-found', undefined],
    [new HttpException('x', 400), 'unreadable', undefined],
    [{ statusCode: 413 }, 'too-large', undefined],
    [{ statusCode: 415 }, 'wrong-type', undefined],
    [Object.assign(new Error(), { code: '53100' }), 'not-available', '60'],
    [Object.assign(new Error(), { code: 'ECONNRESET' }), 'not-available', '5'],
    [Object.assign(new Error(), { code: '22021' }), 'refused', undefined],
    [new TypeError('secret words of a visitor'), 'internal', undefined],
    ['a string', 'internal', undefined],
  ])('%#: come from whatever is thrown, without its words', (cause, code, retryAfter) => {
    const problem = asProblem(cause);
    expect(problem.code).toBe(code);
    expect(problem.headers()['retry-after']).toBe(retryAfter);
    expect(JSON.stringify(problem.body())).not.toContain('secret');
  });
});

describe('paging', () => {
  const row = (n: number) => ({ at: `2026-03-14T09:30:00.00000${n}Z`, id: `01a20bc8-b722-779e-9a06-f5adeb50029${n}` });

  test('gives a cursor that is read back, as long as there is more', () => {
    const page = pageOf(
      [row(1), row(2), row(3)],
      2,
      ({ id }) => id,
      (one) => one,
      9,
    );
    expect(page).toMatchObject({ items: [row(1).id, row(2).id], total: 9 });
    expect(readCursor(page.next)).toEqual(row(2));
    expect(
      pageOf(
        [row(1)],
        2,
        ({ id }) => id,
        (one) => one,
      ),
    ).toEqual({ items: [row(1).id] });
  });

  test.each([
    'nonsense',
    Buffer.from('2026 x').toString('base64url'),
    Buffer.from('2026-01-01T00:00:00Z 1').toString('base64url'),
  ])('refuses the cursor %s', (text) => expect(() => readCursor(text)).toThrow(ProblemError));

  test('refuses limits that are none', () => {
    expect([readLimit(undefined), readLimit('200')]).toEqual([50, 200]);
    for (const text of ['0', '201', '1.5', 'many', '-1']) expect(() => readLimit(text)).toThrow('limit');
  });
});
