/** A body as nobody means it. */
export interface HostileBody {
  type: string;
  body: string | Buffer;
}

/** What a body says it is, and what of it is broken. */
export const BODY_KINDS = ['json', 'urlencoded', 'multipart', 'bytes', 'other'] as const;
export type BodyKind = (typeof BODY_KINDS)[number];

/** Numbers from 0 to 1 that are the same every time (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const UNITS = [
  'a',
  ' ',
  '\n',
  '<a',
  '</',
  '@',
  '.',
  ',',
  ';',
  '"',
  '\\',
  '=',
  '%',
  '{{',
  '[',
  '(',
  '9',
  '$1',
  "'",
  '王',
  '\u0301',
  '\ud800',
  '\0',
  '-',
  '+44',
  'é',
];
const NAMES = [
  'name',
  'email',
  'phone',
  'message',
  'company',
  '_visit',
  '_once',
  '_opened',
  '_entry',
  '__proto__',
  'constructor',
  'toString',
  'a.b',
  'a[0]',
  '["x"]',
  '',
  ' ',
];
const WORDS = [
  'null',
  'NaN',
  '1e999',
  '-0',
  '2026-13-45',
  "' or 1=1 --",
  '../../etc',
  '${7*7}',
  '{{ value }}',
  '=cmd()',
  '\u202e',
  'true',
  '00000000-0000-0000-0000-000000000000',
];

/** Makes hostile bodies, the same from the same seed. */
export class Hostile {
  constructor(readonly random: () => number) {}

  pick<Item>(items: readonly Item[]): Item {
    return items[Math.floor(this.random() * items.length)]!;
  }

  text(): string {
    if (this.random() < 0.3) return this.pick(WORDS);
    const unit = this.pick(UNITS);
    return unit.repeat(1 + Math.floor(this.random() ** 3 * 60_000)) + this.pick(['', '!', 'a', ' ']);
  }

  /** A text inside an address. */
  parameter(): string {
    return encodeURIComponent(this.text().replaceAll('\ud800', '')).slice(0, 6_000);
  }

  value(depth = 0): unknown {
    const chance = this.random();
    if (depth > 4 || chance < 0.5) return this.text();
    if (chance < 0.6) return this.pick([0, -1, 1e308, 1.5, true, false, null]);
    if (chance < 0.8) return Array.from({ length: Math.floor(this.random() * 8) }, () => this.value(depth + 1));
    return this.object(depth + 1);
  }

  object(depth = 0): Record<string, unknown> {
    const count = Math.floor(this.random() * 10);
    return Object.fromEntries(
      Array.from({ length: count }, () => [
        this.random() < 0.8 ? this.pick(NAMES) : this.text().slice(0, 2_000),
        this.value(depth + 1),
      ]),
    );
  }

  json(): string {
    switch (Math.floor(this.random() * 9)) {
      case 0:
        return '['.repeat(20_000);
      case 1:
        return `${'{"not":'.repeat(20_000)}1${'}'.repeat(20_000)}`;
      case 2:
        return JSON.stringify(Object.fromEntries(Array.from({ length: 10_500 }, (_, n) => [`k${n}`, n])));
      case 3:
        return JSON.stringify(Array.from({ length: 600 }, () => ({ name: 'x' })));
      case 4:
        return JSON.stringify(this.object()).slice(0, -3);
      case 5:
        return `{"a":1,"a":{"a":[1e999,-1e999]},"${'k'.repeat(5_000)}":0}`;
      case 6:
        return JSON.stringify(this.value());
      default:
        return JSON.stringify(this.object());
    }
  }

  urlencoded(): string {
    const pair = () =>
      `${this.pick([...NAMES, '%', '%zz', 'a%5Bb%5D'])}=${this.pick(['%ff%fe', '%', '+'.repeat(50_000), this.parameter()])}`;
    return Array.from({ length: 1 + Math.floor(this.random() * 30) }, pair).join('&');
  }

  multipart(): HostileBody {
    const boundary = this.pick(['x', '-'.repeat(70), 'a b', '']);
    const part = () => {
      const name = this.pick([...NAMES, 'n'.repeat(3_000), 'a"; filename="b']);
      const file =
        this.random() < 0.4 ? `; filename="${this.pick(['a.pdf', '../x', 'é\0.exe', 'n'.repeat(900)])}"` : '';
      const content = this.random() < 0.3 ? 'MZ\u0090\0' : this.text();
      return `--${boundary}\r\nContent-Disposition: form-data; name="${name}"${file}\r\n\r\n${content}\r\n`;
    };
    const parts = Array.from({ length: Math.floor(this.random() * 8) }, part).join('');
    const end = this.pick([`--${boundary}--\r\n`, '', `--${boundary}`, '\r\n\r\n']);
    return { type: `multipart/form-data; boundary=${boundary}`, body: parts + end };
  }

  body(kind: BodyKind = this.pick(BODY_KINDS)): HostileBody {
    switch (kind) {
      case 'json':
        return { type: 'application/json', body: this.json() };
      case 'urlencoded':
        return { type: 'application/x-www-form-urlencoded', body: this.urlencoded() };
      case 'multipart':
        return this.multipart();
      case 'bytes':
        return {
          type: this.pick(['application/json', 'application/json; charset=utf-7', 'multipart/form-data; boundary=x']),
          body: this.random() < 0.3 ? Buffer.from([0xff, 0xfe, 0x7b, 0, 0x22]) : this.bytes(),
        };
      case 'other':
        return { type: this.pick(['text/plain', 'application/xml', '', 'x'.repeat(500)]), body: this.text() };
    }
  }

  bytes(): Buffer {
    return Buffer.from(Array.from({ length: 300 }, () => Math.floor(this.random() * 256)));
  }
}
