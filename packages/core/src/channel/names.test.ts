import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { destination } from '../testing/example';
import { campaignCodes, joinedName, plainName, registeredCode } from './names';
import { sourceOf } from './source-of';
import { wayOf } from './way';

describe('names', () => {
  test.each([
    ['Growers Weekly', 'growersweekly'],
    ['GRÖWERS-weekly!', 'growersweekly'],
    ['ｇｒｏｗｅｒｓ', 'growers'],
    ['園芸 ウィークリー', plainName('園芸ウィークリー')],
    ['---', ''],
  ])('%s is plainly %s', (name, plain) => expect(plainName(name)).toBe(plain));

  test('of a source count under the one that they were joined to', () => {
    const rules = { rules: [], names: [{ name: 'Growers Weekly', spellings: ['GW'] }] };
    expect([joinedName('g.w.', rules), joinedName('GROWERS WEEKLY', rules), joinedName('Glass', rules)]).toEqual([
      'Growers Weekly',
      'Growers Weekly',
      'Glass',
    ]);
  });

  test('of campaigns are those of the register, whatever a link says', () => {
    const codes = campaignCodes([{ code: 'spring-2026', spellings: ['sprng'] }]);
    const of = (said?: string) => registeredCode(said, codes);
    expect([of('Spring 2026'), of('SPRNG'), of('autumn'), of('constructor'), of('')]).toEqual([
      'spring-2026',
      'spring-2026',
      'autumn',
      'constructor',
      undefined,
    ]);
  });
});

test('whatever somebody came by, there is a channel and a source, the same each time', () =>
  fc.assert(
    fc.property(
      fc.record(
        {
          utm_source: fc.string({ unit: 'binary' }),
          utm_medium: fc.string({ unit: 'binary' }),
          utm_campaign: fc.string(),
          referrer: fc.oneof(fc.webUrl(), fc.string()),
          page: fc.oneof(fc.webUrl(), fc.string()),
          click: fc.string(),
          userAgent: fc.string(),
        },
        { requiredKeys: [] },
      ),
      (visit) => {
        const submission = () => ({ intake: 'survey', visit, origin: {}, payload: {} });
        const { channel, source } = sourceOf(submission(), destination);
        expect(channel).not.toBe('');
        expect(source).not.toBe('');
        expect(sourceOf(submission(), destination)).toEqual({
          ...sourceOf(submission(), destination),
          channel,
          source,
        });
        // A way is kept as JSON that the database takes.
        expect(JSON.stringify(wayOf(submission()))).not.toContain('\\u0000');
      },
    ),
  ));
