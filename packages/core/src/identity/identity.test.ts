import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { companyDomain } from '../reading/domain';
import { normalEmail, severalEmails } from '../reading/email';
import { identityKeysOf, identityKeyText } from './keys';
import { hasPhoneNumbers, normalPhone } from '../reading/phone';

describe('the normal form of an e-mail address', () => {
  test.each([
    ['Ada@Weir.example', 'ada@weir.example'],
    [' "Ada Weir" <ada@weir.example> ', 'ada@weir.example'],
    ['mailto:ada@weir.example', 'ada@weir.example'],
    ['ada+glass@weir.example', 'ada+glass@weir.example'],
    ['ａｄａ@weir.example', 'ada@weir.example'],
    ['åsa@lind.example', 'åsa@lind.example'],
    ['ada@ weir .example', 'ada@weir.example'],
    ['ada@weir.example.', 'ada@weir.example'],
    ['“ada@weir.example”,', 'ada@weir.example'],
    ['\ufeffada\u200b@weir.example', 'ada@weir.example'],
    ['MAILTO:ada@weir.example?subject=Hi', 'ada@weir.example'],
    ['E-mail: ada@weir.example (work)', 'ada@weir.example'],
  ])('of %s is %s', (text, email) => expect(normalEmail(text)).toEqual({ ok: true, email }));

  test.each([
    'ada',
    'ada@',
    '@weir.example',
    'ada@weir',
    'ada@-weir.example',
    'a b@weir..example',
    `${'a'.repeat(65)}@weir.example`,
  ])('is not to be had of %s', (text) =>
    expect(normalEmail(text)).toMatchObject({ ok: false, problem: { code: 'not-an-email' } }),
  );

  test('is its own normal form', () => {
    fc.assert(
      fc.property(fc.emailAddress(), (address) => {
        const once = normalEmail(address);
        if (once.ok) expect(normalEmail(once.email)).toEqual(once);
      }),
    );
  });
});

test.each([
  ['ada@x.example, Bo@x.example', ['ada@x.example', 'bo@x.example']],
  ['ada@x.example;ada@x.example', ['ada@x.example']],
  ['ada@x.example or bo@x.example', ['ada@x.example', 'bo@x.example']],
  ['ada@x.example ring me', []],
  ['', []],
  [Array.from({ length: 21 }, (_, n) => `a${n}@x.example`).join(), []],
])('%j holds several addresses: %j', (text, expected) => expect(severalEmails(text)).toEqual(expected));

describe('the domain that stands for a company', () => {
  test.each([
    ['ada@shop.weir.co.uk', 'weir.co.uk'],
    ['HTTPS://WWW.Weir.example:8080/path?x=1', 'weir.example'],
    ['weir.example', 'weir.example'],
    ['ada@outlook.com', null],
    ['ada@example.org', null],
    ['ada@192.168.0.1', null],
    ['ada@localhost', null],
    ['', null],
    ['ada@growers.github.io', null],
    ['https://www.facebook.com/fennwick', null],
    ['ada@33mail.com', null],
  ])('of %s is %s', (text, domain) => expect(companyDomain(text)).toBe(domain));
});

describe('phone numbers', () => {
  test('are read from the country they were typed in', () => {
    expect(normalPhone('020 7946 0018', 'GB')).toEqual({ ok: true, phone: '+442079460018' });
    expect(normalPhone('12', 'GB').ok).toBe(false);
    expect(normalPhone(' ', 'GB')).toEqual({ ok: false });
  });

  test('need a country that has some', () => {
    expect(hasPhoneNumbers('NL')).toBe(true);
    expect(hasPhoneNumbers('nl')).toBe(false);
    expect(normalPhone('+31 6 0000 4182', 'nowhere')).toEqual({ ok: true, phone: '+31600004182' });
  });
});

describe('the identity keys of a record', () => {
  const texts = (...args: Parameters<typeof identityKeysOf>) => identityKeysOf(...args).map(identityKeyText);

  test('are every e-mail and phone of a contact, each once', () => {
    expect(
      texts('contact', { email: 'a@x.example', emails: ['a@x.example', 'b@x.example'], phone: '+441', full_name: 'A' }),
    ).toEqual(['contact email a@x.example', 'contact email b@x.example', 'contact phone +441']);
  });

  test('have the mailbox once that several addresses write differently', () => {
    expect(texts('contact', { emails: ['j.weir@gmail.com', 'jw.eir@gmail.com', 'jweir+shows@gmail.com'] })).toEqual([
      'contact email j.weir@gmail.com',
      'contact mailbox jweir@gmail.com',
      'contact email jw.eir@gmail.com',
      'contact email jweir+shows@gmail.com',
    ]);
  });

  test('are the domain and phone of a company', () => {
    expect(texts('company', { name: 'Weir', domain: 'weir.example', phone: '+441' })).toEqual([
      'company domain weir.example',
      'company phone +441',
    ]);
  });

  test('are those of a lead, and a deal has none', () => {
    expect(texts('lead', { name: 'L', email: 'a@x.example' })).toEqual(['lead email a@x.example']);
    expect(texts('deal', { name: 'D' })).toEqual([]);
  });
});
