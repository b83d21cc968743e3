import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JsonObject, JsonValue } from '../json';
import { answerText } from './answer-text';
import { readBody, readPayload } from './body';
import { answerAt, payloadFields } from './fields';
import { PAYLOAD_LIMITS, payloadSize } from './payload-size';
import { fieldKey, parseKey } from './key';
import { whoSent } from './who';

const bytes = (text: string) => new TextEncoder().encode(text);
const json = fc.jsonValue({ maxDepth: 4 }) as fc.Arbitrary<JsonValue>;
const payload = fc.dictionary(fc.string(), json) as fc.Arbitrary<JsonObject>;

describe('the keys of fields', () => {
  test.each<[(string | number)[], string]>([
    [['email'], 'email'],
    [['person', 'email'], 'person.email'],
    [['phones', 0], 'phones[0]'],
    [['list', 0, 'value'], 'list[0].value'],
    [['a.b'], '["a.b"]'],
    [['a', '', 'c]'], 'a[""]["c]"]'],
  ])('%j is %s', (way, key) => {
    expect(fieldKey(way)).toBe(key);
    expect(parseKey(key)).toEqual(way);
  });

  test('any way is read back from its key', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.string(), fc.nat(99)), { minLength: 1 }).filter(([first]) => typeof first === 'string'),
        (way) => expect(parseKey(fieldKey(way))).toEqual(way),
      ),
    );
  });

  test('what is no key is not read as one', () => {
    for (const text of ['', 'a..b', 'a[', 'a[x]', '["a]']) expect(parseKey(text)).toBeNull();
  });
});

describe('the fields of a payload', () => {
  test('are found however deep, in the order they were sent', () => {
    const fields = payloadFields({ b: 1, person: { name: { first: 'Ada' } }, phones: ['1', '2'] });
    expect(fields.map(({ key, pointer, value }) => [key, pointer, value])).toEqual([
      ['b', '/b', 1],
      ['person.name.first', '/person/name/first', 'Ada'],
      ['phones[0]', '/phones/0', '1'],
      ['phones[1]', '/phones/1', '2'],
    ]);
  });

  test('have keys under which they are found again', () => {
    fc.assert(
      fc.property(payload, (any) => {
        for (const { key, value } of payloadFields(any)) expect(answerAt(any, key)).toEqual(value);
      }),
    );
  });

  test('never share a key', () => {
    fc.assert(
      fc.property(payload, (any) => {
        const keys = payloadFields(any).map(({ key }) => key);
        expect(new Set(keys).size).toBe(keys.length);
      }),
    );
  });

  test('leave out what carries the visit', () => {
    expect(payloadFields({ _visit: '{}', _once: 'x', email: 'a' }).map(({ key }) => key)).toEqual(['email']);
  });

  test('are only those that were sent, not what every object has', () => {
    for (const key of ['constructor', '__proto__', 'toString', 'a.__proto__.polluted'])
      expect(answerAt({ a: {} }, key)).toBeUndefined();
  });
});

describe('reading a body', () => {
  test('takes JSON with a byte order mark', () => {
    expect(readBody('json', new Uint8Array([0xef, 0xbb, 0xbf, ...bytes('{"a":1}')]))).toEqual({
      ok: true,
      value: { a: 1 },
    });
  });

  test('turns a name that comes several times into a list', () => {
    expect(readPayload('urlencoded', bytes('a=1&b=x+y&a=2%26'))).toEqual({
      ok: true,
      payload: { a: ['1', '2&'], b: 'x y' },
    });
  });

  test('takes names that objects have already', () => {
    const read = readPayload('urlencoded', bytes('__proto__=1&constructor=2'));
    expect(read.ok && Object.entries(read.payload)).toEqual([
      ['__proto__', '1'],
      ['constructor', '2'],
    ]);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
  });

  test.each([
    ['not-json', '{"a":'],
    ['not-json', ''],
    ['not-an-object', '[1]'],
    ['not-an-object', '"text"'],
    ['too-deep', `${'{"a":'.repeat(PAYLOAD_LIMITS.depth + 1)}1${'}'.repeat(PAYLOAD_LIMITS.depth + 1)}`],
    [
      'too-many-fields',
      JSON.stringify(Object.fromEntries(Array.from({ length: PAYLOAD_LIMITS.fields + 1 }, (_, i) => [`k${i}`, i]))),
    ],
  ])('says %s of %.20s', (code, text) => {
    const read = readPayload('json', bytes(text));
    expect(read.ok ? null : read.problem.code).toBe(code);
  });

  test('says that bytes are not UTF-8', () => {
    const read = readPayload('urlencoded', new Uint8Array([0x61, 0x3d, 0xe9]));
    expect(read.ok ? null : read.problem.code).toBe('not-utf8');
  });

  test('takes 10,000 keys, and nesting 100 deep', () => {
    expect(
      readPayload(
        'json',
        bytes(JSON.stringify(Object.fromEntries(Array.from({ length: 10_000 }, (_, i) => [`k${i}`, i])))),
      ).ok,
    ).toBe(true);
    const deep = readPayload('json', bytes(`${'{"a":'.repeat(100)}"x"${'}'.repeat(100)}`));
    expect(deep.ok && payloadFields(deep.payload)[0]?.value).toBe('x');
  });

  test('measures a size without walking into depths', () => {
    let deep: JsonValue = 1;
    for (let i = 0; i < 100_000; i += 1) deep = [deep];
    expect(payloadSize(deep).depth).toBeGreaterThan(PAYLOAD_LIMITS.depth);
  });
});

describe('an answer as text', () => {
  test('loses NUL and lone surrogates, and nothing else', () => {
    expect(answerText('a\0b\ud800c👩‍🌾')).toBe('ab\ufffdc👩‍🌾');
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (any) => {
        expect(answerText(any)).toBe(any.replaceAll('\0', ''));
      }),
    );
  });

  test('is every item of a list and every field of an object', () => {
    expect(answerText(['a', 2, null, true])).toBe('a\n2\ntrue');
    expect(answerText({ street: 'Weir Lane', town: { name: 'Hebden' } })).toBe('street: Weir Lane\ntown.name: Hebden');
  });
});

describe('who sent a payload', () => {
  test.each<[JsonObject, string, string]>([
    [{ first_name: 'Ada', last_name: 'Weir', Email: 'a@b.example' }, 'Ada Weir', 'a@b.example'],
    [
      { person: { name: { first: 'Joost', last: 'de Ruiter' }, email: 'j@v.example' } },
      'Joost de Ruiter',
      'j@v.example',
    ],
    [{ name: 'ÅSA LIND' }, 'ÅSA LIND', ''],
    [{ amount: 3 }, '', ''],
    [{ 'First name': 'Jorrit', 'Last name': 'Haverkamp', 'E-mail': 'j@t.example' }, 'Jorrit Haverkamp', 'j@t.example'],
    [{ Vorname: 'Jörg', Nachname: 'Zeller' }, 'Jörg Zeller', ''],
    [{ applicantFirstName: 'Ada', applicant_last_name: 'Weir' }, 'Ada Weir', ''],
    [{ company_name: 'Weir Ltd', your_name: 'Ada Weir' }, 'Ada Weir', ''],
    [{ company: { name: 'Weir Ltd' }, file_name: 'plan.pdf' }, '', ''],
    [{ form: { name: 'Site survey', first_name: 'Ada', last_name: 'Weir' } }, 'Ada Weir', ''],
    [{ school: { contact_name: 'Ada Weir', name: 'Weir School' } }, 'Ada Weir', ''],
    [{ preferred_contact: 'phone', size_of_family: '4' }, '', ''],
    [{ prénom: 'Zoë', nom: 'Lefèvre' }, 'Zoë Lefèvre', ''],
  ])('%j', (from, who, email) => {
    expect(whoSent(from)).toEqual({ who, email });
  });

  test('goes by what fields are known to be before what they are called', () => {
    const from = {
      name: 'Spring survey',
      f7: 'Ada Weir',
      f8: 'ada@weir.example',
      email: 'desk@shop.example',
      F9: 'Weir',
    };
    expect(whoSent(from)).toEqual({ who: 'Spring survey', email: 'desk@shop.example' });
    expect(whoSent(from, { f7: 'Full name', F8: 'E-mail' })).toEqual({ who: 'Ada Weir', email: 'ada@weir.example' });
    expect(whoSent(from, { f7: 'First name', f9: 'What is your family name?' }).who).toBe('Ada Weir Weir');
    expect(whoSent(from, { constructor: 'x', toString: 'Full name' }).who).toBe('Spring survey');
  });
});
