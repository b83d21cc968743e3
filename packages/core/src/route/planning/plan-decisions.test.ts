import { describe, expect, test } from '@jest/globals';
import type { DecisionTable } from '../../decision/decision-table';
import type { RouteDefinition, Write } from '../../definition/route-definition';
import {
  destination as example,
  fill,
  firm,
  known,
  maren,
  person,
  plan,
  routeOf,
  sale,
  submission,
} from '../../testing/example';
import { checkRoute } from '../checking/check';
import { adoptRoute } from '../editing/adopt-route';
import { usesAnswer, withAnswerRenamed } from '../editing/answers';
import { usesOfTable, withTableRenamed } from '../editing/edit-decisions';
import { readRoute } from '../editing/read-route';
import { accountOf } from '../telling/account';
import { describeRoute } from '../telling/describe';
import { lookupsFor } from './lookups';

const people = ['ida', 'bo'].map((key) => ({ key, label: key === 'ida' ? 'Ida Vos' : 'Bo Lind' }));
const destination = {
  ...example,
  fields: example.fields.map((field) => (field.key === 'owner' ? { ...field, options: people } : field)),
  teams: { north: { name: 'North', people: ['bo', 'ida'] } },
  valueSets: { uk: { name: 'UK', values: ['GB', 'United Kingdom'] } },
};
const WHO: DecisionTable = {
  name: 'Who takes it',
  inputs: [
    { of: { answer: 'country' }, label: 'Country' },
    { of: { answer: 'bays' }, label: 'Bays', as: 'number' },
  ],
  outputs: [
    { name: 'stage', type: 'stage' },
    { name: 'owner', type: 'owner' },
  ],
  rows: [
    {
      when: [
        { test: 'in-set', value: 'uk' },
        { test: 'at-least', value: 8 },
      ],
      then: { stage: 'design', owner: { person: 'ida' } },
    },
    { when: [{ test: 'in-set', value: 'uk' }, null], then: { stage: 'enquiry', owner: { team: 'north' } } },
  ],
};
const decided = (output: string) => ({ parts: [{ decision: 'Who takes it', output }] });
const placed: Write = {
  ...sale,
  place: { ...sale.place!, stage: decided('stage') },
  owner: { decision: 'Who takes it', output: 'owner' },
};
const deciding = (more: Partial<DecisionTable> = {}, write: Partial<Write> = {}): RouteDefinition => ({
  ...routeOf(firm, person, { ...placed, ...write }),
  decisions: [{ ...WHO, ...more }],
});
const planned = (payload: object, route = deciding(), records = known()) =>
  plan(route, submission({ ...maren, ...payload }), records, destination);
const dealOf = ({ diff }: ReturnType<typeof planned>) =>
  Object.values(diff.created).find(({ kind }) => kind === 'deal')?.values;
const surroundings = { destination, intakes: [{ key: 'survey', name: 'Survey' }] };
const problems = (route: RouteDefinition) =>
  checkRoute(route, surroundings)
    .filter(({ severity }) => severity === 'error')
    .map(({ code, at }) => [code, at]);

describe('what a table decides', () => {
  test('is the stage, the owner, and any value, by the first row that fits; the plan says which', () => {
    const first = planned({ country: 'GB', bays: 9 });
    expect(dealOf(first)).toMatchObject({ stage: 'design', owner: 'ida' });
    expect(first.decided).toEqual([
      {
        table: 'Who takes it',
        row: 0,
        values: ['GB', 9],
        said: [
          { name: 'stage', type: 'stage', value: 'design' },
          { name: 'owner', type: 'owner', value: { person: 'ida' } },
        ],
      },
    ]);
    const second = planned({ country: 'united kingdom', bays: '7 bays' });
    expect(dealOf(second)).toMatchObject({ stage: 'enquiry', owner: 'bo' });
    expect(second.advance).toEqual({ 'turn north': 1 });
    const told = accountOf(second, submission(maren), { destination, intake: 'Survey' });
    expect(told.find(({ step }) => step === 'decided')?.table).toEqual({ name: 'Who takes it', row: 1 });
    const texts = accountOf(second, submission(maren), { destination, intake: 'Survey' }).map(({ text }) => text);
    expect(texts).toContain('Who takes it: row 2, stage Enquiry, owner North, in turn');
  });

  test('is what stands under otherwise where no row fits, and nothing where nothing stands there', () => {
    const otherwise = planned(
      { country: 'NL' },
      deciding({ otherwise: { stage: 'enquiry', owner: { person: 'bo' } } }),
    );
    expect(dealOf(otherwise)).toMatchObject({ stage: 'enquiry', owner: 'bo' });
    expect(otherwise.decided).toMatchObject([{ row: null, otherwise: true }]);
    expect(planned({ country: 'NL' })).toMatchObject({ outcome: 'fail', reason: { code: 'unknown-stage' } });
  });

  test('is what happens to who is known, and what a second enquiry does, for as many as it says something about', () => {
    const ways: DecisionTable = {
      ...WHO,
      name: 'Ways',
      inputs: [{ of: { answer: 'country' }, label: 'Country' }],
      outputs: [
        { name: 'known', type: 'when-matched' },
        { name: 'again', type: 'again' },
      ],
      rows: [
        { when: [{ test: 'is', value: 'NL' }], then: { known: 'leave', again: 'new' } },
        { when: [{ test: 'is', value: 'DE' }], then: { known: 'skip' } },
      ],
    };
    const says = (output: string) => ({ decision: 'Ways', output });
    const route: RouteDefinition = {
      ...routeOf(
        firm,
        { ...person, whenMatched: 'update', decided: { whenMatched: says('known') } },
        { ...sale, decided: { again: says('again') } },
      ),
      decisions: [ways],
    };
    expect(problems(route)).toEqual([]);
    expect(readRoute(JSON.parse(JSON.stringify(route)))).toMatchObject({ ok: true });
    const all = known();
    const first = plan(route, submission({ ...maren, country: 'GB' }), all, destination);
    all.learn(first.diff, '2026-03-11T12:00:00.000Z');
    const again = (country: string) => {
      const { writes } = plan(route, submission({ ...maren, phone: '020 7946 0999', country }), all, destination);
      return writes.slice(1).map(({ did }) => did);
    };
    expect(again('GB')).toEqual(['change', 'keep']);
    expect(again('NL')).toEqual(['keep', 'create']);
    expect(again('DE')[0]).toBe('none');
    // The table is named otherwise, or its output is of another kind: both are seen.
    expect(withTableRenamed(route, 'Ways', 'Manners').writes[1]!.decided).toEqual({
      whenMatched: { decision: 'Manners', output: 'known' },
    });
    expect(usesOfTable(route, 'Ways')).toBe(2);
    const crossed = { ...route, writes: [firm, { ...person, decided: { whenMatched: says('again') } }, sale] };
    expect(problems(crossed)).toEqual([['output-does-not-fit', '/writes/1/decided/whenMatched/output']]);
    const unsaid = { ...route, decisions: [{ ...ways, rows: [{ when: [null], then: { known: 'forget' } }] }] };
    expect(problems(unsaid)).toEqual([[expect.any(String), '/decisions/0/rows/0/then/known']]);
    expect(JSON.stringify(describeRoute(route, surroundings))).toContain('what then the table Ways says');
  });

  test('can be asked for in conditions, such as whether there is a deal at all', () => {
    const only = deciding({}, { when: { of: { decision: 'Who takes it', output: 'stage' }, test: 'filled' } });
    expect(planned({ country: 'NL' }, only).writes[2]).toMatchObject({ did: 'none' });
    expect(dealOf(planned({ country: 'GB', bays: 1 }, only))).toBeDefined();
  });

  test('fails the run when two rows fit and one may, or when a cell cannot be read any more', () => {
    const two = planned({ country: 'GB', bays: 9 }, deciding({ fits: 'one' }));
    expect(two).toMatchObject({
      outcome: 'fail',
      reason: {
        code: 'undecided',
        text: 'The table “Who takes it” decides nothing. Rows 1 and 2 both fit, and exactly one may.',
      },
    });
    expect(two.diff.created).toEqual({});
    const gone = deciding({ rows: [{ when: [{ test: 'in-set', value: 'gone' }, null], then: {} }, ...WHO.rows] });
    expect(planned({ country: 'GB' }, gone).reason).toMatchObject({
      code: 'undecided',
      text: expect.stringContaining('Row 1'),
    });
    // Another cell of the row rules it out, so it does not matter.
    const beside = deciding({
      rows: [
        {
          when: [
            { test: 'in-set', value: 'gone' },
            { test: 'above', value: 99 },
          ],
          then: {},
        },
        ...WHO.rows,
      ],
    });
    expect(planned({ country: 'GB', bays: 9 }, beside).outcome).toBe('write');
  });

  test('may go by records recognised before, by earlier tables, and by the time of arrival where it is read', () => {
    const tables: DecisionTable[] = [
      {
        name: 'Known',
        inputs: [
          { of: { write: 'person', field: 'hc_known' }, label: 'Known before' },
          { of: { write: 'person', field: 'hc_open_deals' }, label: 'Open deals' },
        ],
        outputs: [{ name: 'customer', type: 'yes-no' }],
        rows: [{ when: [{ test: 'yes' }, { test: 'at-least', value: 1 }], then: { customer: true } }],
        otherwise: { customer: false },
      },
      {
        name: 'Who takes it',
        inputs: [
          { of: { decision: 'Known', output: 'customer' }, label: 'Customer' },
          { of: { visit: 'receivedAt' }, label: 'Hour', as: 'time-of-day', timeZone: 'Asia/Tokyo' },
          { of: { visit: 'receivedAt' }, label: 'Day', as: 'weekday', timeZone: 'Asia/Tokyo' },
        ],
        outputs: WHO.outputs,
        rows: [
          {
            // 09:30 in Greenwich on a Saturday is half past six in the evening in Tokyo.
            when: [{ test: 'yes' }, { test: 'between', value: [1_110, 1_110] }, { test: 'is-any-of', value: ['sat'] }],
            then: { stage: 'design', owner: { person: 'ida' } },
          },
        ],
        otherwise: { stage: 'enquiry' },
      },
    ];
    const route = { ...deciding(), decisions: tables };
    expect(problems(route)).toEqual([]);
    const contact = {
      id: 'c1',
      kind: 'contact' as const,
      values: { email: 'm.oduya@fennwick.example', last_name: 'Oduya' },
    };
    const deal = (id: string, status: string) => ({
      id,
      kind: 'deal' as const,
      values: { name: 'A', pipeline: 'other', status },
    });
    const records = known(contact, deal('d1', 'open'), deal('d2', 'won'));
    const linked = ['d1', 'd2'].map((from) => ({ from, to: 'c1' }));
    records.learn({ created: {}, changed: {}, removed: {}, linked, unlinked: [] }, '2026-01-01T00:00:00.000Z');
    const found = planned({}, route, records);
    expect(found.decided).toMatchObject([
      { row: 0, values: [true, 1] },
      { row: 0, values: [true, 1_110, 'sat'] },
    ]);
    expect(dealOf(found)).toMatchObject({ stage: 'design', owner: 'ida' });
    expect(dealOf(planned({}, route))).toMatchObject({ stage: 'enquiry' });
  });

  test('reads every team that it may name beforehand', () => {
    expect(lookupsFor(deciding(), submission(maren), destination).counters).toEqual(['turn north']);
  });
});

describe('a route with a table', () => {
  test('is read, checked, told, and goes along when a sender renames a field', () => {
    const route = deciding();
    expect(readRoute(structuredClone(route))).toEqual({ ok: true, route });
    expect(problems(route)).toEqual([]);
    const words = describeRoute(route, surroundings);
    expect(words.decide).toBe('Who takes it: 2 rows decide stage and owner');
    expect(words.place).toContain('New builds, a stage chosen by the table Who takes it');
    expect(words.followUp).toContain('the deal goes to whom the table Who takes it names as owner');
    expect(usesAnswer(route, 'country')).toBe(true);
    expect(withAnswerRenamed(route, 'country', 'land').decisions![0]!.inputs[0]!.of).toEqual({
      answer: 'land',
      or: ['country'],
    });
  });

  test.each<[string, Partial<RouteDefinition>, [string, string][]]>([
    [
      'a table that is not there',
      { decisions: [] },
      [
        ['unknown-decision', '/writes/2/place/stage/parts/0/decision'],
        ['unknown-decision', '/writes/2/owner/decision'],
      ],
    ],
    ['two of one name', { decisions: [WHO, WHO] }, [['name-taken', '/decisions/1/name']]],
    [
      'an output that is not there',
      { decisions: [{ ...WHO, outputs: WHO.outputs.slice(0, 1) }] },
      [
        ['unknown-output', '/decisions/0/rows/0/then/owner'],
        ['unknown-output', '/decisions/0/rows/1/then/owner'],
        ['unknown-output', '/writes/2/owner/output'],
      ],
    ],
    [
      'a stage and a person who are gone',
      { decisions: [{ ...WHO, rows: [{ when: [], then: { stage: 'gone', owner: { person: 'gone' } } }] }] },
      [
        ['output-does-not-fit', '/decisions/0/rows/0/then/stage'],
        ['output-does-not-fit', '/decisions/0/rows/0/then/owner'],
      ],
    ],
    [
      'a cell of the wrong type',
      { decisions: [{ ...WHO, rows: [{ when: [null, { test: 'contains', value: 'x' }], then: {} }] }] },
      [['cell-does-not-fit', '/decisions/0/rows/0/when/1']],
    ],
    [
      'a row with too many cells',
      { decisions: [{ ...WHO, rows: [{ when: [null, null, null], then: {} }] }] },
      [['cell-does-not-fit', '/decisions/0/rows/0']],
    ],
    [
      'a time zone that is none',
      { decisions: [{ ...WHO, inputs: [{ ...WHO.inputs[0]!, timeZone: 'Mars/One' }, WHO.inputs[1]!] }] },
      [['unknown-time-zone', '/decisions/0/inputs/0/timeZone']],
    ],
    [
      'a table that asks for one after it',
      {
        decisions: [
          {
            ...WHO,
            inputs: [{ of: { decision: 'Who takes it', output: 'stage' }, label: 'x' }, WHO.inputs[1]!],
            rows: [],
          },
        ],
      },
      [['unknown-decision', '/decisions/0/inputs/0/of/decision']],
    ],
    [
      'a record that is written only afterwards',
      {
        decisions: [
          { ...WHO, inputs: [{ of: { write: 'sale', field: 'bays' }, label: 'x' }, WHO.inputs[1]!], rows: [] },
        ],
      },
      [
        ['decided-too-early', '/writes/2/place/stage/parts/0/decision'],
        ['decided-too-early', '/writes/2/owner/decision'],
      ],
    ],
    [
      'an owner from an output that names nobody',
      { decisions: [{ ...WHO, outputs: [WHO.outputs[0]!, { name: 'owner', type: 'text' }], rows: [] }] },
      [['output-does-not-fit', '/writes/2/owner/output']],
    ],
  ])('is refused for %s', (_, more, expected) => expect(problems({ ...deciding(), ...more })).toEqual(expected));

  test('from elsewhere gets the names of this workspace', () => {
    const rows = [{ when: [null, null], then: { stage: 'Design', owner: { team: 'North' } } }];
    const { route, adopted } = adoptRoute(deciding({ rows }), destination);
    expect(route.decisions![0]!.rows[0]!.then).toEqual({ stage: 'design', owner: { team: 'north' } });
    expect(adopted).toHaveLength(2);
    expect(problems(route)).toEqual([]);
  });

  test('is refused where a fill takes a table that is gone', () => {
    const route = routeOf({ ...person, links: [], fills: [...person.fills, fill('job_title', decided('stage'))] });
    expect(problems(route)).toEqual([['unknown-decision', '/writes/0/fills/6/value/parts/0/decision']]);
  });
});
