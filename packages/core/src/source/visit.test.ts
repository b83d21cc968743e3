import { describe, expect, test } from '@jest/globals';
import { visitsBefore } from './earlier-visit';
import { MASKED_ADDRESS } from './parameter';
import { readVisit } from './visit';

describe('reading a visit', () => {
  test('takes what was handed over before the address and the headers', () => {
    const visit = readVisit({
      handedOver: JSON.stringify({ utm_source: 'first', page: 'https://a.example/' }),
      query: new URLSearchParams('utm_source=second&utm_medium=email&page=https://b.example/'),
      headers: { referer: 'https://c.example/', userAgent: 'Browser' },
    });
    expect(visit).toEqual({
      utm_source: 'first',
      utm_medium: 'email',
      page: 'https://a.example/',
      userAgent: 'Browser',
    });
  });

  test.each([
    ['gb', 'GB'],
    [' NL ', 'NL'],
    ['Great Britain', 'GB'],
    ['XX', undefined],
    ['G1', undefined],
  ])('takes the country %s as %s, from a script alone', (country, code) => {
    expect(readVisit({ handedOver: { country } }).country).toBe(code);
    expect(readVisit({ query: new URLSearchParams({ country }) })).toEqual({});
  });

  test('never takes from a post what only the server knows', () => {
    const told = { enteredBy: 'robin', sheet: 'People', utm_source: 'spring' };
    const query = new URLSearchParams('enteredBy=robin&sheet=People');
    expect(readVisit({ handedOver: told, query })).toEqual({ utm_source: 'spring' });
  });

  test.each([['{'], ['[1]'], [42], [null], [{ utm_source: { a: 1 } }]])('takes %j for no visit', (handedOver) =>
    expect(readVisit({ handedOver: handedOver as never })).toEqual({}),
  );

  test('keeps nothing that the database cannot, and nothing endless', () => {
    expect(readVisit({ handedOver: { utm_source: `a\0${'b'.repeat(9_000)}` } }).utm_source).toHaveLength(2_000);
  });

  test('cuts no character in two, and decodes nothing that the database cannot keep', () => {
    const cut = readVisit({ handedOver: { utm_source: `${'a'.repeat(1_999)}🌷` } }).utm_source!;
    expect(cut.endsWith('a\uFFFD')).toBe(true);
    expect(readVisit({ handedOver: { utm_term: 'a%2500b%00c' } }).utm_term).toBe('abc');
  });

  test.each([
    ['spring%20sale', 'spring sale'],
    ['spring%2520sale', 'spring sale'],
    ['%E6%98%A5', '春'],
    ['100% glass', '100% glass'],
    ['50%25 off', '50% off'],
    ['%25252525', '%2525'],
  ])('takes the campaign “%s” as it was meant', (sent, meant) =>
    expect(readVisit({ handedOver: { utm_campaign: sent } }).utm_campaign).toBe(meant),
  );

  test('masks e-mail addresses in the parameters of a link, and says in which', () => {
    const query = new URLSearchParams(
      'utm_term=for%20maren%40oak.example&utm_content=a%2540b.example&gclid=ada@oak.example',
    );
    expect(readVisit({ query })).toEqual({
      utm_term: `for ${MASKED_ADDRESS}`,
      utm_content: MASKED_ADDRESS,
      click: 'gclid',
      clickId: MASKED_ADDRESS,
      masked: 'utm_term utm_content clickId',
    });
  });

  test('keeps the first of a repeated parameter, and the click by which somebody came', () => {
    const query = new URLSearchParams('utm_source=a&utm_source=b&Ad_Click_Id=77&xclid=78');
    expect(readVisit({ query })).toEqual({ utm_source: 'a', click: 'ad_click_id', clickId: '77' });
  });

  test('looks at so many parameters for a click, and no more', () => {
    const many = new URLSearchParams([...Array.from({ length: 200 }, (_, n) => [`p${n}`, 'x']), ['gclid', '1']]);
    expect(readVisit({ query: many }).click).toBeUndefined();
  });

  const BEFORE = { id: 'AAAAAAAA-0000-4000-8000-000000000001', at: '2026-03-01T10:00:00Z', utm_source: 'fair' };

  test('takes the visits before that a site kept, as a list or its text, and leaves out what is none', () => {
    const none = [{ ...BEFORE, id: 'x' }, { ...BEFORE, at: 'soon' }, 'x', null, { utm_source: 'a' }];
    const earlier = [{ id: BEFORE.id.toLowerCase(), at: '2026-03-01T10:00:00.000Z', visit: { utm_source: 'fair' } }];
    expect(readVisit({ handedOver: { earlier: [...none, BEFORE] } })).toEqual({ earlier });
    expect(readVisit({ handedOver: { earlier: JSON.stringify([BEFORE]) } })).toEqual({ earlier });
    expect(readVisit({ handedOver: { earlier: '[' } })).toEqual({});
  });

  test('takes so many of them, none with others before it', () => {
    const many = Array.from({ length: 100 }, (_, n) => ({ ...BEFORE, utm_source: `s${n}`, earlier: [BEFORE] }));
    const { earlier = [] } = readVisit({ handedOver: { earlier: many } });
    expect(earlier.map(({ visit }) => visit.utm_source)).toEqual(Array.from({ length: 20 }, (_, n) => `s${80 + n}`));
    expect(earlier.every(({ visit }) => visit.earlier === undefined)).toBe(true);
  });

  test('a visitor’s clock may be wrong: what cannot have been before is none of them', () => {
    const at = (text: string) => ({ id: BEFORE.id, at: text, visit: {} });
    const all = ['2026-02-28T00:00:00Z', '2026-03-02T00:00:00Z', '1970-01-01T00:00:00Z', '2099-01-01T00:00:00Z'].map(
      at,
    );
    expect(visitsBefore(all, '2026-03-01T00:00:00Z')).toEqual([at('2026-02-28T00:00:00Z')]);
  });
});
