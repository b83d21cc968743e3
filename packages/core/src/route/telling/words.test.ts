import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { recordWord, recordWords, type Pipeline } from '../../destination/destination';
import { answer, destination, fill, firm, person, route, routeOf, sale, seenField, text } from '../../testing/example';
import { routeChanges } from '../planning/changes';
import { checkRoute, hasErrors } from '../checking/check';
import type { Place, RouteDefinition, Write } from '../../definition/route-definition';
import { describeRoute, requiredUnfed } from './describe';
import { whatItDoes } from './what-it-does';
import { routeFromOutline, usualOutline } from '../../mapping/outlines';

const names = { destination, intakes: [{ key: 'survey', name: 'Site survey request' }] };

describe('a route told in sentences', () => {
  test('says what it takes, writes, recognises and where it places', () => {
    expect(describeRoute(route, names)).toEqual({
      sentence: 'Site survey request → company, contact and deal in New builds, Enquiry',
      takesFrom: 'Site survey request',
      onlyWhen: 'everything that arrives',
      mapping: '12 fields fed',
      recognise: 'company by domain, only blanks filled and contact by e-mail',
      place: 'New builds, Enquiry; a second enquiry updates the open deal',
      decide: 'nothing by tables',
      followUp: 'nothing more',
    });
  });

  test('calls a deal what the workspace calls it', () => {
    const ours = { ...names, destination: { ...destination, dealWord: 'opportunity' as const } };
    expect(describeRoute(route, ours)).toMatchObject({
      sentence: expect.stringContaining('contact and opportunity in New builds'),
      place: expect.stringContaining('updates the open opportunity'),
    });
    const { dealWord } = ours.destination;
    expect([recordWord({ dealWord }, 'deal'), recordWords({ dealWord }, 'deal'), recordWords({}, 'lead')]).toEqual([
      'opportunity',
      'opportunities',
      'leads',
    ]);
  });

  test('says so where nothing is chosen yet', () => {
    expect(describeRoute({ ...routeOf(), from: [] }, names)).toEqual({
      decide: 'nothing by tables',
      sentence: 'No intake → nothing',
      takesFrom: 'no intake yet',
      onlyWhen: 'everything that arrives',
      mapping: '0 fields fed',
      recognise: 'nothing to recognise',
      place: 'in no pipeline',
      followUp: 'nothing more',
    });
  });

  test.each<[Place['again'], string]>([
    ['update', 'updates the open deal'],
    ['new', 'makes another deal'],
    ['new-if-closed', 'leaves an open deal as it is'],
    ['leave', 'leaves any deal as it is'],
  ])('tells a second enquiry by the rule %s', (again, words) =>
    expect(describeRoute(routeOf({ ...sale, place: { ...sale.place!, again } }), names).place).toContain(words),
  );

  test('names by their keys what is gone, and by what it is what the answers choose', () => {
    const placed = (pipeline: string | null, stage: string | null): RouteDefinition =>
      routeOf({
        ...sale,
        place: {
          ...sale.place!,
          pipeline: pipeline === null ? answer('a') : text(pipeline),
          stage: stage === null ? answer('b') : text(stage),
        },
      });
    expect(describeRoute(placed('gone', 'lost-key'), names).place).toMatch(/^gone, lost-key;/);
    expect(describeRoute(placed(null, null), names).place).toMatch(/^a pipeline chosen by the answers, a stage chosen/);
    expect(describeRoute({ ...route, from: ['unknown'] }, names).takesFrom).toBe('unknown');
  });

  test('counts the required fields that nothing feeds', () => {
    const without: Write = { ...person, fills: person.fills.filter(({ field }) => field !== 'email') };
    expect(requiredUnfed(without, destination)).toEqual(['email']);
    expect(describeRoute(routeOf(without), names).mapping).toBe('5 fields fed, 1 required field is not');
  });
});

describe('what is different between two versions', () => {
  const changes = (after: RouteDefinition) => routeChanges(route, after, names);
  const withPerson = (change: Partial<Write>) => routeOf(firm, { ...person, ...change }, sale);

  test('is nothing when nothing is, however the properties are ordered', () => {
    expect(changes(route)).toEqual([]);
    const turned = Object.fromEntries(Object.entries(person).reverse()) as unknown as Write;
    expect(changes(routeOf(firm, turned, sale))).toEqual([]);
  });

  test.each<[string, RouteDefinition, string]>([
    ['the name', { ...route, name: 'Surveys' }, 'It is called “Surveys” instead of “Site survey”.'],
    ['the intake', { ...route, from: ['fair'] }, 'It takes from fair instead of Site survey request.'],
    ['a write that is gone', routeOf(firm, person), 'It writes no deal “sale” any more.'],
    ['a write more', routeOf(firm, person, sale, { ...firm, as: 'other' }), 'It also writes a company “other”.'],
    [
      'a field more',
      withPerson({ fills: [...person.fills, fill('job_title', answer('role'))] }),
      'The contact’s Job title is fed.',
    ],
    [
      'fields less',
      withPerson({ fills: person.fills.slice(2) }),
      'The contact’s First name and Last name are fed no more.',
    ],
    [
      'another value',
      withPerson({ fills: [fill('first_name', answer('given')), ...person.fills.slice(1)] }),
      'The contact’s First name is fed in another way.',
    ],
    ['another match', withPerson({ whenMatched: 'leave' }), 'The contact is recognised in another way.'],
    ['no link', withPerson({ links: [] }), 'The contact is linked in another way.'],
    [
      'another place',
      routeOf(firm, person, { ...sale, place: { ...sale.place!, again: 'new' } }),
      'The deal is placed otherwise: New builds, Enquiry; a second enquiry makes another deal (before: New builds, Enquiry; a second enquiry updates the open deal).',
    ],
  ])('is told for %s', (_, after, sentence) => expect(changes(after)).toEqual([sentence]));
});

test('a first version says what it does, and what deals are called', () => {
  const written = {
    ...sale,
    fills: [
      fill('name', {
        parts: [
          { write: 'firm', field: 'name' },
          { write: 'person', field: 'full_name' },
        ],
      }),
    ],
  };
  expect(whatItDoes(routeOf(firm, person, written), names)).toEqual([
    'Takes from Site survey request',
    expect.stringMatching(/^Mapping: \d+ fields fed/),
    'The deal’s name is the company’s Name and the contact’s Full name',
    'Recognises company by domain, only blanks filled and contact by e-mail',
    'Placed in New builds, Enquiry; a second enquiry updates the open deal',
  ]);
  const called = routeOf(firm, person, { ...written, fills: [fill('name', answer('project'))] });
  expect(routeChanges(routeOf(firm, person, written), called, names)).toEqual([
    'The deal’s Name is fed in another way.',
    'The deal’s name is project (before: the company’s Name and the contact’s Full name).',
  ]);
});

describe('a first draft of a route', () => {
  const drafted = (keys: readonly string[], where = destination) =>
    routeFromOutline('enquiry', { name: 'R', intake: 'survey', seen: keys.map(seenField) }, where);

  test('feeds what the intake sends where its name leaves no doubt', () => {
    const made = drafted(['visitor.first_name', 'visitor.surname', 'mail', 'e-mail', 'tel']);
    const fed = made.writes[0]!.fills.map(({ field, value }) => [field, value.parts[0]]);
    expect(fed).toEqual([
      ['first_name', { answer: 'visitor.first_name' }],
      ['last_name', { answer: 'visitor.surname' }],
      ['email', { answer: 'e-mail' }],
      ['phone', { answer: 'tel' }],
      ['source', { visit: 'source' }],
    ]);
  });

  test('for the people of a file knows them by all that tells who they are, and the company where it is named', () => {
    const keys = ['First name', 'Last name', 'E-mail', 'Phone', 'Company'];
    const made = routeFromOutline('people', { name: 'R', intake: 'survey', seen: keys.map(seenField) }, destination);
    const [firm, person] = made.writes;
    expect(made.writes.map(({ as }) => as)).toEqual(['firm', 'person']);
    expect(firm).toMatchObject({
      when: { of: { answer: 'Company' }, test: 'filled' },
      match: [{ by: 'domain' }, { by: 'name' }],
    });
    expect(firm!.fills.map(({ field }) => field)).toEqual(['name', 'domain', 'source']);
    expect(person!.match!.map(({ by }) => by)).toEqual(['email', 'phone', 'likeness']);
    expect(person).toMatchObject({ whenMatched: 'fill-blanks', links: ['firm'] });
    expect(hasErrors(checkRoute(made, { destination, intakes: [{ key: 'survey', name: 'S' }] }))).toBe(false);
    expect(usualOutline(destination, 'sheet')).toBe('people');
  });

  test('can be published as it is, whatever the intake has sent', () => {
    const words = fc.constantFrom('first', 'last', 'name', 'email', 'e-mail', 'phone', 'tel', 'role', 'company', 'x');
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.array(words, { minLength: 1, maxLength: 3 }).map((parts) => parts.join('.'))),
        fc.constantFrom('enquiry' as const, 'people' as const),
        (keys, outline) => {
          // A file need not have what a workspace asks of an enquiry: that is told, and for a person to decide.
          const fields = destination.fields.map((field) => ({
            ...field,
            required: field.required && outline === 'enquiry',
          }));
          const where = { ...destination, fields };
          const made = routeFromOutline(outline, { name: 'R', intake: 'survey', seen: keys.map(seenField) }, where);
          const problems = checkRoute(made, { destination: where, intakes: [{ key: 'survey', name: 'S' }] });
          // Where no answer holds what a workspace asks for, that is told, and no key made up for it.
          expect(problems.filter(({ severity, code }) => severity === 'error' && code !== 'required-unfed')).toEqual(
            [],
          );
          for (const key of made.writes.flatMap(({ fills }) => fills.flatMap(({ value }) => value.parts)))
            if (keys.length && 'answer' in key) expect(keys).toContain(key.answer);
          for (const { fills } of made.writes) expect(new Set(fills.map(({ field }) => field)).size).toBe(fills.length);
        },
      ),
    );
  });

  test('begins where the pipeline says, else in its first open stage; without a pipeline it writes no deal', () => {
    const stageIn = (change: Partial<Pipeline>) => {
      const pipelines = [{ ...destination.pipelines[0]!, ...change }];
      return drafted([], { ...destination, pipelines }).writes[1]!.place!.stage;
    };
    expect(stageIn({})).toEqual(text('enquiry'));
    expect(stageIn({ defaultStage: 'design' })).toEqual(text('design'));
    expect(stageIn({ stages: [...destination.pipelines[0]!.stages].reverse() })).toEqual(text('design'));
    expect(drafted([], { ...destination, pipelines: [] }).writes).toHaveLength(1);
  });
});
