import { describe, expect, test } from '@jest/globals';
import { buildLink } from './build-link';
import { asRulesWant, checkLink, USUAL_LINK_RULES, type LinkRules } from './link-rules';
import { linksFromRows } from './links-from-rows';

const link = { utm_source: 'newsletter', utm_medium: 'email', utm_campaign: 'spring' };
const wrong = (more: object, rules: LinkRules = USUAL_LINK_RULES) =>
  checkLink({ ...link, ...more }, rules).map(({ at, text }) => [at, text]);

describe('what links say', () => {
  test('is as the rules want it, or told apart with what is meant', () => {
    expect(wrong({})).toEqual([]);
    expect(wrong({ utm_source: 'Growers Weekly' })).toEqual([
      ['/utm_source', 'Source “Growers Weekly” is written “growers-weekly”.'],
    ]);
    expect(wrong({ utm_medium: ' ' })).toEqual([['/utm_medium', 'Medium is missing.']]);
    expect(wrong({ utm_term: '' })).toEqual([]);
  });

  test('can be bound to words, which then are right as they are', () => {
    const rules = { ...USUAL_LINK_RULES, words: { utm_medium: ['E-Mail', 'cpc'] } };
    expect(wrong({ utm_medium: 'E-Mail' }, rules)).toEqual([]);
    expect(wrong({ utm_medium: 'e-mail' }, rules)).toEqual([['/utm_medium', 'Medium “e-mail” is written “E-Mail”.']]);
    expect(wrong({ utm_medium: 'print' }, rules)).toEqual([
      ['/utm_medium', 'Medium “print” is none of the allowed words.'],
    ]);
  });

  test.each([
    [' Spring  Price List ', 'spring-price-list'],
    ['Frühling', 'frühling'],
    ['春の カタログ', '春の-カタログ'],
  ])('%j is written %j', (typed, written) => expect(asRulesWant(typed, USUAL_LINK_RULES)).toBe(written));
});

describe('a link', () => {
  test.each([
    [
      'quillfern.example/prices',
      'https://quillfern.example/prices?utm_source=newsletter&utm_medium=email&utm_campaign=spring',
    ],
    [
      'https://quillfern.example/?a=1&utm_source=old&utm_term=old#top',
      'https://quillfern.example/?a=1&utm_source=newsletter&utm_medium=email&utm_campaign=spring#top',
    ],
  ])('to %s keeps what else the page asks', (page, address) =>
    expect(buildLink(page, link)).toEqual({ ok: true, address }),
  );

  test.each(['', 'prices', 'javascript:alert(1)', 'https://', `https://a.example/${'x'.repeat(2_000)}`])(
    'to “%s” cannot be made',
    (page) => expect(buildLink(page, link).ok).toBe(false),
  );
});

describe('pasted rows', () => {
  test('are read in their usual order, or by their headings', () => {
    expect(linksFromRows('a.example\tnews\temail\n\nb.example\tfair\tprint\ttop\tglass')).toEqual([
      { page: 'a.example', parameters: { utm_source: 'news', utm_medium: 'email' } },
      {
        page: 'b.example',
        parameters: { utm_source: 'fair', utm_medium: 'print', utm_content: 'top', utm_term: 'glass' },
      },
    ]);
    expect(linksFromRows('Medium;Link;utm_source\nemail;a.example;news')).toEqual([
      { page: 'a.example', parameters: { utm_source: 'news', utm_medium: 'email' } },
    ]);
  });

  test('are refused where they are longer than links', () => {
    expect(linksFromRows('x'.repeat(6_000))).toBe('A row is longer than a link can be.');
    expect(linksFromRows('a.example\n'.repeat(200_000))).toBe('This is more text than rows of links are.');
  });

  test('are refused where there are too many', () =>
    expect(linksFromRows('a.example\n'.repeat(501))).toBe('At most 500 links are made at once.'));
});
