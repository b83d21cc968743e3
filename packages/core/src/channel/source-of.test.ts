import { describe, expect, test } from '@jest/globals';
import type { Destination } from '../destination/destination';
import type { Origin } from '../source/origin';
import type { ChannelRules, IntakeSource } from '../source/channel-rules';
import type { Visit } from '../source/visit';
import { destination } from '../testing/example';
import { sourceOf } from './source-of';
import { rulesOfTable, tableOfRules } from './rules-table';
import { USUAL_RULES } from './usual-rules';

const of = (
  visit: Visit,
  more: { origin?: Origin; payload?: Record<string, string>; around?: Partial<Destination> } = {},
) =>
  sourceOf(
    { intake: 'survey', visit, origin: more.origin ?? {}, payload: more.payload ?? {} },
    { ...destination, ...more.around },
  );

describe('by the usual rules', () => {
  test.each<[Visit, string, string]>([
    [{ utm_source: 'spring-newsletter', utm_medium: 'Email' }, 'e-mail', 'spring-newsletter'],
    [{ utm_source: 'growers', utm_medium: 'cpc' }, 'paid', 'growers'],
    [{ utm_source: 'growers', utm_medium: 'Paid-Social' }, 'paid', 'growers'],
    [{ utm_source: 'meadow', utm_medium: 'social-organic' }, 'social', 'meadow'],
    [{ utm_campaign: 'spring' }, 'campaign', 'spring'],
    [{ referrer: 'https://www.search.example/?q=x' }, 'search', 'search.example'],
    // Anybody can write this into an address.
    [{ utm_source: 'Garden club', utm_medium: 'file' }, 'campaign', 'Garden club'],
    [{ referrer: 'https://forum.weir.example/t/1', page: 'https://quillfern.example/' }, 'referral', 'weir.example'],
    [{ referrer: 'https://shop.quillfern.example/', page: 'https://quillfern.example/' }, 'direct', 'direct'],
    [{ referrer: 'nonsense', page: 'https://quillfern.example/' }, 'referral', 'nonsense'],
    [{}, 'direct', 'direct'],
  ])('%j is %s, %s', (visit, channel, source) => expect(of(visit)).toMatchObject({ channel, source }));

  test('a row of a file came by the file, whatever a visit would say', () =>
    expect(of({ utm_source: 'spring' }, { origin: { sheet: 'Garden club' } })).toMatchObject({
      channel: 'file',
      source: 'Garden club',
    }));
});

describe('by rules of a workspace', () => {
  const rules: ChannelRules = {
    rules: [
      { when: { utm_source: { test: 'starts-with', value: ['gw'] } }, channel: 'partner', source: 'Growers Weekly' },
      { when: { site: { test: 'is', value: ['weir.example'] } }, channel: 'partner', medium: 'link' },
      ...USUAL_RULES.rules,
    ],
    names: [{ name: 'Growers Weekly', spellings: ['growersweekly', 'Grower’s Weekly'] }],
  };

  test('the first that fits says the channel, and the name and medium where it names them', () => {
    expect(of({ utm_source: 'GW-ads', utm_medium: 'CPC' }, { around: { channelRules: rules } })).toEqual({
      channel: 'partner',
      source: 'Growers Weekly',
      medium: 'cpc',
      campaign: null,
    });
    expect(of({ referrer: 'https://www.weir.example/' }, { around: { channelRules: rules } })).toEqual({
      channel: 'partner',
      source: 'weir.example',
      medium: 'link',
      campaign: null,
    });
  });

  test('spellings of one source count under one name, whatever their capitals, marks and spaces', () => {
    for (const utm_source of ['growersweekly', 'Growers  Weekly', 'GROWERS-WEEKLY', 'growers_weekly', 'Gröwers weekly'])
      expect(of({ utm_source }, { around: { channelRules: rules } }).source).toBe('Growers Weekly');
    expect(of({ utm_source: 'Growers Monthly' }, { around: { channelRules: rules } }).source).toBe('Growers Monthly');
  });

  test('by the country of a visit, where somebody told it', () => {
    const abroad = { rules: [{ when: { country: { test: 'is', value: 'NL' } }, channel: 'abroad' }], names: [] };
    const channel = (country?: string) => of(country ? { country } : {}, { around: { channelRules: abroad } }).channel;
    expect([channel('NL'), channel('GB'), channel()]).toEqual(['abroad', 'direct', 'direct']);
  });

  test('a rule that cannot be read, since its value set is gone, lets the usual ones decide', () => {
    const broken = { rules: [{ when: { site: { test: 'in-set', value: 'gone' } }, channel: 'partner' }], names: [] };
    const around = { channelRules: broken };
    expect(of({ utm_source: 'a', utm_medium: 'email' }, { around })).toMatchObject({ channel: 'e-mail' });
  });

  test('are the same after they were written as a table and read again', () =>
    expect(rulesOfTable(tableOfRules(rules))).toEqual(rules.rules));
});

describe('by what the intake says', () => {
  const around = (source: IntakeSource) => ({ intakeSources: { survey: source } });
  const constant = { source: 'Garden fair', medium: 'event', campaign: 'Fair 2027', channel: 'event' };

  test('its source is taken where nothing else was seen', () => {
    expect(of({}, { around: around({ constant }) })).toEqual({
      channel: 'event',
      source: 'Garden fair',
      medium: 'event',
      campaign: 'Fair 2027',
    });
    expect(of({ utm_source: 'spring' }, { around: around({ constant }) })).toMatchObject({ source: 'spring' });
  });

  test('its source stands before the name of a file that was brought into it', () => {
    const brought = (around_: Partial<Destination>) => of({}, { origin: { sheet: 'stand.csv' }, around: around_ });
    expect(brought(around({ constant }))).toMatchObject({ channel: 'event', source: 'Garden fair' });
    expect(brought({})).toMatchObject({ channel: 'file', source: 'stand.csv' });
  });

  test('or always, where it says so', () =>
    expect(of({ utm_source: 'spring' }, { around: around({ constant, always: true }) })).toMatchObject({
      source: 'Garden fair',
      channel: 'event',
    }));

  test('answers carry the source where the link had none', () => {
    const setting = around({ answers: { utm_source: 'src', utm_medium: 'kind' } });
    const payload = { src: 'Trade letter', kind: 'newsletter' };
    expect(of({}, { payload, around: setting })).toMatchObject({ channel: 'e-mail', source: 'Trade letter' });
    expect(of({ utm_source: 'spring' }, { payload, around: setting })).toMatchObject({ source: 'spring' });
  });
});
