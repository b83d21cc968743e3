import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkRoute } from '../route/checking/check';
import { destination as example, submission } from '../testing/example';
import { KnownRecords } from '../identity/known-records';
import { planRun } from '../route/planning/plan-run';
import { checkForm } from './check-form';
import type { FormDefinition, FormItem, Question } from './definition';
import { editForm, formChanges, newItemName } from './edit-form';
import { askableFields, followFields, questionFor } from './field-question';
import { offeredFills, routeFromForm } from './form-route';
import { listLines, optionsFromLines } from './option-lines';
import { whyNotNamed } from './rename-item';
import { wishOfRoute } from './wish-of-route';
import { bestLanguage, localised, textsOf } from './localise';
import { filledIn } from './thank-text';
import { checkTheme, contrast, inColoursOf, PLAIN_THEME } from './theme';
import { circleOf } from './visibility';

const destination = {
  ...example,
  fields: example.fields.map((field) =>
    field.key === 'owner'
      ? {
          ...field,
          options: [
            { key: 'ida', label: 'Ida' },
            { key: 'bo', label: 'Bo' },
            { key: 'gone', label: 'Gone', retired: true },
          ],
        }
      : field.key === 'tags'
        ? { ...field, options: [{ key: 'show', label: 'Met at the show' }] }
        : field.key === 'lists'
          ? { ...field, options: [{ key: 'news', label: 'Newsletter' }] }
          : field,
  ),
  teams: { north: { name: 'North', people: ['ida', 'bo', 'gone'] }, empty: { name: 'Empty', people: ['gone'] } },
};
const field = (record: string, key: string) =>
  destination.fields.find((one) => one.record === record && one.key === key)!;
const ask = (name: string, more: Partial<Question> = {}): Question => ({ name, type: 'text', label: name, ...more });
const formOf = (...items: FormItem[]): FormDefinition => ({
  format: 'haycart.form/1',
  title: 'Ask for a survey',
  button: 'Send',
  language: 'en-GB',
  after: { do: 'thank', title: 'Thank you, {first_name}', text: '' },
  items,
});

describe('a question made from a field', () => {
  const question = questionFor(field('contact', 'growing_for'), 'growing_for');

  test('has the field’s words, type and options, whatever they become', () => {
    const shown = (fields: typeof destination.fields) => followFields(formOf(question), fields).items[0] as Question;
    expect(shown(destination.fields)).toMatchObject({
      type: 'one-of',
      label: 'Growing for',
      options: [{ value: 'school', label: 'Teaching garden' }],
    });
    const renamed = {
      ...field('contact', 'growing_for'),
      label: 'Grows',
      options: [
        { key: 'trade', label: 'Trade' },
        { key: 'school', label: 'School', retired: true },
      ],
    };
    expect(shown([renamed])).toMatchObject({ label: 'Grows', options: [{ value: 'trade', label: 'Trade' }] });
  });

  test('keeps words of its own', () => {
    const own = { ...question, label: 'What will you grow?', options: [{ value: 'school', label: 'With pupils' }] };
    expect(followFields(formOf(own), destination.fields).items[0]).toMatchObject({
      label: 'What will you grow?',
      options: [{ value: 'school', label: 'With pupils' }],
    });
  });

  test('is offered for what visitors can know', () => {
    const keys = askableFields(destination.fields).map(({ key }) => key);
    expect(keys).toEqual(expect.arrayContaining(['first_name', 'growing_for', 'bays']));
    for (const key of ['owner', 'tags', 'stage', 'emails', 'source']) expect(keys).not.toContain(key);
  });
});

describe('a form is edited', () => {
  test('and every change leaves the names of items apart', () => {
    const words = fc.string({ unit: 'grapheme', maxLength: 80 });
    fc.assert(
      fc.property(fc.array(words, { maxLength: 12 }), (all) => {
        const form = all.reduce(
          (before, label) =>
            editForm(before, { do: 'add', at: 0, items: [ask(newItemName(label, before), { label })] }),
          formOf(),
        );
        const names = form.items.map(({ name }) => name);
        expect(new Set(names).size).toBe(all.length);
        expect(names.every((name) => /^[a-z][a-z0-9_]{0,59}$/.test(name))).toBe(true);
      }),
    );
  });

  test('by moving, changing and removing, told in sentences', () => {
    const before = formOf(ask('a'), ask('b'), ask('c'));
    const moved = editForm(before, { do: 'move', name: 'c', to: 0 });
    expect(moved.items.map(({ name }) => name)).toEqual(['c', 'a', 'b']);
    expect(editForm(before, { do: 'move', name: 'nobody', to: 0 })).toBe(before);
    const after = editForm(
      editForm(editForm(moved, { do: 'remove', name: 'b' }), {
        do: 'change',
        name: 'a',
        item: ask('a', { required: true }),
      }),
      { do: 'set', part: { title: 'Another', intro: undefined } },
    );
    expect(formChanges(before, after)).toEqual([
      'The question “a” is changed.',
      'The question “b” is gone.',
      'The order is another.',
      'The title is changed.',
    ]);
    expect(formChanges(before, before)).toEqual([]);
    expect(after).not.toHaveProperty('intro');
  });
});

describe('a question has its key', () => {
  const before: FormDefinition = {
    ...formOf(
      ask('phone', { label: 'Phone' }),
      ask('hours', {
        label: 'When?',
        shownWhen: { not: { any: [{ of: { question: 'phone' }, test: 'is-blank' }] } },
      }),
    ),
    after: { do: 'thank', title: 'We call {phone}', text: 'On {phone} or {phone_2}' },
    translations: { nl: { 'items/phone/label': 'Telefoon', 'after/title': 'Wij bellen {phone}', title: 'Vraag' } },
  };
  const rename = (to: string, name = 'phone') => editForm(before, { do: 'rename', name, to });

  test('and conditions, texts and translations follow another one', () => {
    const after = rename('tel');
    expect(after.items.map(({ name }) => name)).toEqual(['tel', 'hours']);
    expect(after.items[1]!.shownWhen).toEqual({ not: { any: [{ of: { question: 'tel' }, test: 'is-blank' }] } });
    expect(after.after).toEqual({ do: 'thank', title: 'We call {tel}', text: 'On {tel} or {phone_2}' });
    expect(after.translations).toEqual({
      nl: { 'items/tel/label': 'Telefoon', 'after/title': 'Wij bellen {tel}', title: 'Vraag' },
    });
    expect(formChanges(before, after)[0]).toBe('The key of “Phone” is tel, and was phone.');
    expect(formChanges(before, after).join()).not.toMatch(/gone|new/);
    expect(editForm(after, { do: 'rename', name: 'tel', to: 'phone' })).toEqual(before);
  });

  test.each(['hours', 'Phone', '2', '', 'a b', 'x'.repeat(61)])('“%s” is none, and says why', (to) => {
    expect(rename(to)).toBe(before);
    expect(whyNotNamed(before, 'phone', to)).toMatch(/key/);
  });

  test('and nothing happens to one that is not there', () => {
    expect(rename('tel', 'nobody')).toBe(before);
  });
});

describe('options are a list of lines', () => {
  const before = [
    { value: 'school', label: 'A school' },
    { value: 'home', label: 'At home' },
  ];

  test('that keep what was answered, however they are worded and ordered', () => {
    expect(optionsFromLines(['At home', 'A school'], before)).toEqual([before[1], before[0]]);
    expect(optionsFromLines(['A school or college', 'At home', 'An office'], before)).toEqual([
      { value: 'school', label: 'A school or college' },
      before[1],
      { value: 'an-office', label: 'An office' },
    ]);
    expect(optionsFromLines(['Home', 'School'], [before[0]!])).toEqual([
      { value: 'school', label: 'Home' },
      { value: 'school-2', label: 'School' },
    ]);
  });

  test('pasted from anywhere', () => {
    expect(listLines('• Hay\r\n\r\n- Straw\n1. Moss\u2028Hay\n  3 bales ')).toEqual([
      'Hay',
      'Straw',
      'Moss',
      '3 bales',
    ]);
  });

  test('whatever they are: each value once, each word once', () => {
    const label = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(
        fc.uniqueArray(label),
        fc.array(label).map((lines) => listLines(lines.join('\n'))),
        (old, lines) => {
          const known = optionsFromLines(old, []);
          const options = optionsFromLines(lines, known);
          expect(options.map((option) => option.label)).toEqual(lines);
          expect(new Set(options.map(({ value }) => value)).size).toBe(lines.length);
          for (const option of known) if (lines.includes(option.label)) expect(options).toContainEqual(option);
        },
      ),
    );
  });
});

describe('a draft is checked', () => {
  const codes = (form: FormDefinition) => checkForm(form, destination).map(({ code }) => code);
  const when = (question: string, value: string[] = ['x']) => ({ of: { question }, test: 'is', value: value[0] });
  test.each<[string, FormDefinition, string[]]>([
    ['nothing wrong', formOf(ask('a')), []],
    ['no question', formOf({ name: 'x', type: 'heading', text: 'Hello' }), ['no-question']],
    ['a question without words', formOf(ask('a', { label: ' ' })), ['no-label']],
    [
      'two that wait for each other',
      formOf(ask('a', { shownWhen: when('b') }), ask('b', { shownWhen: when('a') })),
      ['conditions-in-a-circle', 'waits-for-later'],
    ],
    ['one that waits for nobody', formOf(ask('a', { shownWhen: when('nobody') })), ['condition-does-not-fit']],
    [
      'one that waits for an option that is not offered',
      formOf(
        ask('kind', { type: 'one-of', options: [{ value: 'a', label: 'A' }] }),
        ask('more', { shownWhen: { of: { question: 'kind' }, test: 'is-any-of', value: ['b'] } }),
      ),
      ['never-shown'],
    ],
    [
      'a needed one that is not shown and empty',
      formOf(ask('a'), ask('b', { type: 'hidden', required: true })),
      ['required-but-hidden'],
    ],
    [
      'an option that the field does not have',
      formOf(
        ask('g', {
          type: 'one-of',
          feeds: { record: 'contact', field: 'growing_for' },
          options: [{ value: 'moon', label: 'The moon' }],
        }),
      ),
      ['unknown-option'],
    ],
    ['a field that is gone', formOf(ask('g', { feeds: { record: 'deal', field: 'gone' } })), ['unknown-field']],
    ['a step that asks nothing', formOf(ask('a'), { name: 's', type: 'step', text: 'More' }), ['empty-step']],
    [
      'a way to another site',
      { ...formOf(ask('a')), after: { do: 'redirect', to: 'https://else.example/x' } },
      ['leads-elsewhere'],
    ],
    ['a way to nowhere', { ...formOf(ask('a')), after: { do: 'redirect', to: 'https://:::' } }, ['not-an-address']],
    [
      'a way to an allowed site',
      {
        ...formOf(ask('a')),
        after: { do: 'redirect', to: 'https://ours.example/x' },
        mayLeadTo: ['https://ours.example'],
      },
      [],
    ],
  ])('%s', (_, form, expected) => expect(codes(form)).toEqual(expected));

  test('a circle is named', () => {
    const form = formOf(
      ask('a', { shownWhen: when('b') }),
      ask('b', { shownWhen: when('c') }),
      ask('c', { shownWhen: when('b') }),
    );
    expect(circleOf(form)).toEqual(['b', 'c']);
    expect(checkForm(form, destination)[0]!.text).toContain('“b” and “c” wait for each other');
  });
});

describe('a form speaks several languages', () => {
  const form: FormDefinition = {
    ...formOf(ask('bays', { label: 'How many bays?', help: 'A guess is fine.' })),
    translations: { nl: { 'items/bays/label': 'Hoeveel traveeën?', title: 'Vraag een opmeting aan' } },
  };
  test('all of its texts can be translated, and what is not stays', () => {
    expect(Object.keys(textsOf(form))).toEqual([
      'title',
      'button',
      'after/title',
      'items/bays/label',
      'items/bays/help',
    ]);
    expect(localised(form, 'nl')).toMatchObject({
      title: 'Vraag een opmeting aan',
      language: 'nl',
      items: [{ label: 'Hoeveel traveeën?', help: 'A guess is fine.' }],
    });
    expect(localised(form, 'fr')).toBe(form);
  });
  test.each([
    ['nl-BE,nl;q=0.9,en;q=0.5', 'nl'],
    ['de, en;q=0.5', 'en-GB'],
    ['en;q=0.2, nl;q=0.8', 'nl'],
    ['', 'en-GB'],
  ])('%s is answered in %s', (wanted, language) => expect(bestLanguage(form, wanted)).toBe(language));
});

test('thanks hold the answers', () => {
  const form = formOf(ask('first_name'), ask('kind', { type: 'one-of', options: [{ value: 'a', label: 'A school' }] }));
  expect(filledIn('Thank you, {first_name}! {kind}, {nothing}.', form, { first_name: ' Ada ', kind: 'a' })).toBe(
    'Thank you, Ada! A school,.',
  );
});

describe('a theme', () => {
  test('is checked for contrast', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21);
    expect(checkTheme(PLAIN_THEME)).toEqual([]);
    expect(checkTheme({ ...PLAIN_THEME, accentInk: '#3a8091' }).map(({ at }) => at)).toEqual(['/accentInk']);
    expect(checkTheme({ ...PLAIN_THEME, ink: 'red' }).map(({ code }) => code)).toEqual(['not-a-colour']);
  });
});

test('a theme takes on the colours of the page around it, as long as it can be read', () => {
  const dark = inColoursOf(PLAIN_THEME, { background: '#101820', ink: '#f0f4f0', accent: '#e2b23a' });
  expect(dark).toMatchObject({ background: '#101820', sheet: '#101820', ink: '#f0f4f0', accentInk: '#000000' });
  const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
  const anything = fc.oneof(colour, fc.constantFrom(null, 'red', 'url(x)', '#fff'));
  fc.assert(
    fc.property(fc.record({ background: anything, ink: anything, accent: anything }), (host) =>
      expect(checkTheme(inColoursOf(PLAIN_THEME, host))).toEqual([]),
    ),
  );
});

describe('the route that follows from a form', () => {
  const form = formOf(
    ...(['first_name', 'last_name', 'email', 'phone', 'growing_for'] as const).map((key) =>
      questionFor(field('contact', key), key),
    ),
    questionFor(field('company', 'name'), 'organisation'),
    questionFor(field('deal', 'bays'), 'bays'),
  );
  const wish = {
    place: { record: 'deal' as const, pipeline: 'new-builds', stage: 'enquiry', again: 'update' as const },
    value: 'GBP 500',
    owner: { team: 'north' },
    tags: ['show'],
    lists: ['news'],
  };
  const route = routeFromForm({ key: 'survey', name: 'Survey' }, form, destination, wish);
  const payload = {
    first_name: 'ADA',
    last_name: 'weir',
    email: 'ada@weir.example',
    growing_for: 'school',
    organisation: 'Weir',
    bays: '6',
  };
  const plan = () =>
    planRun(route, submission(payload), new KnownRecords([], []), {
      destination,
      newIds: { firm: 'f', person: 'p', sale: 's' },
    });

  test('is in order, and writes every answer to the field that it was asked for', () => {
    expect(checkRoute(route, { destination, intakes: [{ key: 'survey', name: 'Survey' }] })).toEqual([]);
    const { created } = plan().diff;
    expect(created.p!.values).toMatchObject({
      first_name: 'Ada',
      email: 'ada@weir.example',
      growing_for: 'school',
      tags: ['show'],
      lists: ['news'],
    });
    expect(created.f!.values).toMatchObject({ name: 'Weir', domain: 'weir.example' });
    expect(created.s!.values).toMatchObject({
      bays: 6,
      value: { amount: 50_000, currency: 'GBP' },
      name: 'Weir, Ada Weir',
    });
    expect(['ida', 'bo']).toContain(created.s!.values.owner);
  });

  test('tells what was wished for, so that a copy of its form begins with that', () => {
    expect(wishOfRoute(route)).toEqual(wish);
    expect(wishOfRoute(routeFromForm({ key: 'survey', name: 'Survey' }, form, destination, {}))).toEqual({});
    const asked = formOf(
      questionFor(field('contact', 'email'), 'email'),
      questionFor(field('deal', 'value'), 'budget'),
    );
    expect(wishOfRoute(routeFromForm({ key: 'survey', name: 'Survey' }, asked, destination, wish))).toEqual(wish);
    const byAnswer = {
      ...route,
      writes: route.writes.map((write) =>
        write.place ? { ...write, place: { ...write.place, stage: { parts: [{ answer: 'bays' }] } } } : write,
      ),
    };
    expect(wishOfRoute(byAnswer)).toEqual({ ...wish, place: undefined });
  });

  const publishable = (made: typeof route) =>
    checkRoute(made, { destination, intakes: [{ key: 'survey', name: 'Survey' }] }).map(({ code }) => code);

  test('asks of a lead what the contact is asked, and links both', () => {
    const asked = formOf(
      ...(['first_name', 'last_name', 'email'] as const).map((key) => questionFor(field('contact', key), key)),
      questionFor(field('lead', 'message'), 'message'),
    );
    const made = routeFromForm({ key: 'survey', name: 'Survey' }, asked, destination, {});
    expect(publishable(made)).toEqual([]);
    const { diff } = planRun(made, submission({ ...payload, message: 'Call me' }), new KnownRecords([], []), {
      destination,
      newIds: { person: 'p', enquiry: 'l' },
    });
    expect(diff.created.l!.values).toMatchObject({ name: 'Ada Weir', email: 'ada@weir.example', message: 'Call me' });
    expect(diff.linked).toEqual([{ from: 'l', to: 'p' }]);
  });

  test.each([
    ['a lead’s message alone', [questionFor(field('lead', 'message'), 'message')]],
    ['a lead’s e-mail alone', [questionFor(field('lead', 'email'), 'email')]],
    ['a company’s website alone', [questionFor(field('company', 'website'), 'site')]],
  ])('can be published where the form asks %s', (_, questions) => {
    const made = routeFromForm({ key: 'survey', name: 'Survey' }, formOf(...questions), destination, {});
    expect(publishable(made).filter((code) => code !== 'never-recognised')).toEqual([]);
    const came = { message: 'Call me', email: 'ada@weir.example', site: 'https://weir.example/' };
    const { outcome } = planRun(made, submission(came), new KnownRecords([], []), {
      destination,
      newIds: { firm: 'f', person: 'p', enquiry: 'l' },
    });
    expect(outcome).toBe('write');
  });

  test('takes what a deal is worth where the question stays blank', () => {
    const asked = formOf(
      questionFor(field('contact', 'email'), 'email'),
      questionFor(field('contact', 'last_name'), 'last'),
      questionFor(field('deal', 'value'), 'budget'),
    );
    const made = routeFromForm({ key: 'survey', name: 'Survey' }, asked, destination, wish);
    const worth = (budget: string) =>
      planRun(made, submission({ ...payload, last: 'Weir', budget }), new KnownRecords([], []), {
        destination,
        newIds: { person: 'p', sale: 's' },
      }).diff.created.s!.values.value;
    expect(worth('')).toEqual({ amount: 50_000, currency: 'GBP' });
    expect(worth('GBP 9')).toEqual({ amount: 900, currency: 'GBP' });
  });

  test('offers a question that was added later', () => {
    const later = {
      ...route,
      writes: route.writes.map((write) => ({ ...write, fills: write.fills.filter((fill) => fill.field !== 'bays') })),
    };
    expect(offeredFills(form, route, destination)).toEqual([]);
    expect(offeredFills(form, later, destination)).toMatchObject([{ write: 'sale', fill: { field: 'bays' } }]);
  });

  test('names people, teams, tags and lists that are there', () => {
    const wrong = { ...wish, owner: { person: 'gone' }, tags: ['nothing'], lists: ['nowhere'] };
    const problems = checkRoute(routeFromForm({ key: 'survey', name: 'Survey' }, form, destination, wrong), {
      destination,
      intakes: [{ key: 'survey', name: 'Survey' }],
    });
    expect(problems.map(({ code }) => code)).toEqual(['unknown-person', 'unknown-tag', 'unknown-list']);
  });
});
