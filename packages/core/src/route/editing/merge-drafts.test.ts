import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { answer, fill, person, route, routeOf, sale, text } from '../../testing/example';
import type { Fill, RouteDefinition } from '../../definition/route-definition';
import { mergeDrafts } from './merge-drafts';

const fed = (definition: RouteDefinition, as: string, field: string, value: Fill['value'] | null): RouteDefinition => ({
  ...definition,
  writes: definition.writes.map((write) =>
    write.as === as
      ? {
          ...write,
          fills: [...write.fills.filter((one) => one.field !== field), ...(value ? [fill(field, value)] : [])],
        }
      : write,
  ),
});
const fillOf = (definition: RouteDefinition, as: string, field: string) =>
  definition.writes.find((write) => write.as === as)?.fills.find((one) => one.field === field)?.value;

describe('two drafts made of one', () => {
  test('keep what each changed by themselves', () => {
    const mine = { ...fed(route, 'person', 'job_title', text('Head')), name: 'Mine' };
    const theirs = fed(fed(route, 'person', 'phone', null), 'sale', 'message', answer('said'));
    const { draft, clashes } = mergeDrafts(route, mine, theirs);
    expect(clashes).toEqual([]);
    expect(draft.name).toBe('Mine');
    expect(fillOf(draft, 'person', 'job_title')).toEqual(text('Head'));
    expect(fillOf(draft, 'person', 'phone')).toBeUndefined();
    expect(fillOf(draft, 'sale', 'message')).toEqual(answer('said'));
  });

  test('keep mine where both changed the same, and say so', () => {
    const { draft, clashes } = mergeDrafts(
      route,
      fed(route, 'person', 'phone', answer('mobile')),
      fed(route, 'person', 'phone', answer('tel')),
    );
    expect(fillOf(draft, 'person', 'phone')).toEqual(answer('mobile'));
    expect(clashes).toEqual(['The mapping of phone was changed by both; yours is kept.']);
  });

  test('keep what one changed while the other took it away', () => {
    const { draft, clashes } = mergeDrafts(route, routeOf(person), fed(route, 'sale', 'message', answer('said')));
    expect(draft.writes.map(({ as }) => as)).toEqual(
      ['person', 'sale'].filter((as) => as === 'person' || as === 'sale'),
    );
    expect(clashes).toHaveLength(1);
    expect(mergeDrafts(route, routeOf(person), route).draft.writes.map(({ as }) => as)).toEqual(['person']);
  });

  test('take in what each added', () => {
    const base = routeOf(person);
    const withSale = routeOf(person, sale);
    expect(mergeDrafts(base, withSale, base).draft).toEqual(withSale);
    expect(mergeDrafts(base, base, withSale).draft).toEqual(withSale);
    expect(mergeDrafts(base, withSale, withSale).draft).toEqual(withSale);
  });

  test('come to what one of them is where the other changed nothing', () => {
    const change = fc.record({
      as: fc.constantFrom('person', 'sale', 'firm'),
      field: fc.constantFrom('phone', 'message', 'name', 'job_title'),
      value: fc.option(fc.constantFrom(text('a'), answer('b')), { nil: null }),
    });
    fc.assert(
      fc.property(fc.array(change, { maxLength: 6 }), (changes) => {
        const other = changes.reduce((so, { as, field, value }) => fed(so, as, field, value), route);
        const sorted = ({ writes }: RouteDefinition) =>
          writes.map((write) => ({ ...write, fills: [...write.fills].sort((a, b) => (a.field < b.field ? -1 : 1)) }));
        for (const { draft, clashes } of [mergeDrafts(route, other, route), mergeDrafts(route, route, other)]) {
          expect(clashes).toEqual([]);
          expect(sorted(draft)).toEqual(sorted(other));
        }
      }),
    );
  });
});

describe('a table that two people changed', () => {
  const row = (country: string, who: string, note?: string) => ({
    when: [{ test: 'is', value: country }],
    then: { who },
    ...(note ? { note } : {}),
  });
  const deciding = (...rows: ReturnType<typeof row>[]): RouteDefinition => ({
    ...route,
    decisions: [
      {
        name: 'Who',
        inputs: [{ of: { answer: 'country' }, label: 'Country' }],
        outputs: [{ name: 'who', type: 'text' }],
        rows,
      },
    ],
  });
  const base = deciding(row('GB', 'a'), row('NL', 'b'), row('DE', 'c'));
  const rowsOf = ({ draft }: ReturnType<typeof mergeDrafts>) => draft.decisions![0]!.rows;

  test('has the rows that each of them put in, took away and changed', () => {
    const mine = deciding(row('IE', 'x'), row('GB', 'a'), row('NL', 'b'), row('DE', 'c'));
    const theirs = deciding(row('GB', 'a'), row('NL', 'b'), row('FR', 'y'));
    const merged = mergeDrafts(base, mine, theirs);
    expect(rowsOf(merged)).toEqual([row('IE', 'x'), row('GB', 'a'), row('NL', 'b'), row('FR', 'y')]);
    expect(merged.clashes).toEqual([]);
  });

  test('has both changes of one row, cell by cell, and mine where it is the same cell', () => {
    const mine = deciding(row('GB', 'mine'), row('NL', 'mine'), row('DE', 'c'));
    const theirs = deciding(row('GB', 'a', 'theirs'), row('NL', 'theirs'), row('DE', 'c'));
    const merged = mergeDrafts(base, mine, theirs);
    expect(rowsOf(merged)).toEqual([row('GB', 'mine', 'theirs'), row('NL', 'mine'), row('DE', 'c')]);
    expect(merged.clashes).toEqual(['A cell of Who was changed by both; there yours is kept.']);
  });

  test('is as mine, and that is told, where both made another of the same rows or the columns differ', () => {
    const theirs = deciding(row('Y', 'y'), row('Z', 'z'), row('Q', 'q'), row('R', 'r'));
    const merged = mergeDrafts(base, deciding(row('X', 'x')), theirs);
    expect(rowsOf(merged)).toEqual([row('X', 'x')]);
    expect(merged.clashes).toHaveLength(1);
    const wider = { ...base, decisions: [{ ...base.decisions![0]!, outputs: [] }] };
    expect(mergeDrafts(base, wider, deciding(row('Y', 'y'))).clashes).toEqual([
      'The table Who was changed by both; yours is kept.',
    ]);
    expect(mergeDrafts(base, route, base).draft.decisions).toBeUndefined();
    expect(mergeDrafts(route, base, route).draft).toEqual(base);
  });
});
