import { describe, expect, test } from '@jest/globals';
import { sourceOf } from './source';
import { readVisit, type Visit } from './visit';

describe('the source of a visit', () => {
  test.each<[Visit, string, string]>([
    [{ utm_source: 'spring-newsletter', utm_medium: 'Email' }, 'e-mail', 'spring-newsletter'],
    [{ utm_source: 'growers', utm_medium: 'cpc' }, 'paid', 'growers'],
    [{ utm_campaign: 'spring' }, 'campaign', 'spring'],
    [{ referrer: 'https://www.search.example/?q=x' }, 'search', 'search.example'],
    // Anybody can write this into an address.
    [{ utm_source: 'Garden club', utm_medium: 'file' }, 'campaign', 'Garden club'],
    [{ referrer: 'https://forum.weir.example/t/1', page: 'https://quillfern.example/' }, 'referral', 'weir.example'],
    [{ referrer: 'https://shop.quillfern.example/', page: 'https://quillfern.example/' }, 'direct', 'direct'],
    [{ referrer: 'nonsense', page: 'https://quillfern.example/' }, 'referral', 'nonsense'],
    [{}, 'direct', 'direct'],
  ])('%j is %s, %s', (visit, channel, source) => expect(sourceOf(visit)).toMatchObject({ channel, source }));

  test('of a row of a file is the file, whatever a visit would say', () =>
    expect(sourceOf({ utm_source: 'spring' }, { sheet: 'Garden club' })).toMatchObject({
      channel: 'file',
      source: 'Garden club',
    }));
});

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
});
