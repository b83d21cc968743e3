import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JsonObject, JsonValue } from '../json';
import { answerAt, payloadFields } from './fields';

/** Shapes in which form answers are sent, from flat to awkward, each with the fields that it has. */
const SHAPES: [shape: string, payload: JsonObject, fields: Record<string, JsonValue>][] = [
  ['flat', { email: 'ada@weir.example', bays: 4 }, { email: 'ada@weir.example', bays: 4 }],
  ['nothing at all', {}, {}],
  ['blank answers', { email: '', note: null }, { email: '', note: null }],
  ['nested', { person: { name: { first: 'Ada' } } }, { 'person.name.first': 'Ada' }],
  ['names with spaces', { 'Your name': 'Ada' }, { 'Your name': 'Ada' }],
  ['names with dots', { 'a.b': 1 }, { '["a.b"]': 1 }],
  ['names in other letters', { имя: 'Ада', 名前: '山田' }, { имя: 'Ада', 名前: '山田' }],
  ['a plain list', { likes: ['moss', 'fern'] }, { 'likes[0]': 'moss', 'likes[1]': 'fern' }],
  ['an empty list', { likes: [] }, {}],
  ['a list in a list', { rows: [[1, 2], [3]] }, { 'rows[0][0]': 1, 'rows[0][1]': 2, 'rows[1][0]': 3 }],
  ['things bought', { lines: [{ name: 'Oak', quantity: 2 }] }, { 'lines[0].name': 'Oak', 'lines[0].quantity': 2 }],
  [
    'things bought, with a value',
    { lines: [{ name: 'Oak', value: 3, currency: 'GBP' }] },
    { 'lines[0].name': 'Oak', 'lines[0].value': 3, 'lines[0].currency': 'GBP' },
  ],
  [
    'phones by type',
    { phones: [{ type: 'work', number: '020' }] },
    { 'phones[0].type': 'work', 'phones[0].number': '020' },
  ],
  ['phones by label', { phones: [{ label: 'Work', value: '020' }] }, { 'phones.work': '020' }],
  ['label and value', { fields: [{ label: 'Your name', value: 'Ada' }] }, { 'fields.your_name': 'Ada' }],
  ['name and value', { data: [{ name: 'email', value: 'a@b.example' }] }, { 'data.email': 'a@b.example' }],
  ['key and value', { data: [{ key: 'Q1', value: 4 }] }, { 'data.q1': 4 }],
  ['id, type and value', { answers: [{ id: 'f7', type: 'text', value: 'Ada' }] }, { 'answers.f7': 'Ada' }],
  [
    'ids that are numbers',
    {
      answers: [
        { id: 12, value: 'Ada' },
        { id: 13, value: 'Weir' },
      ],
    },
    { 'answers.12': 'Ada', 'answers.13': 'Weir' },
  ],
  [
    'id beside the question',
    { answers: [{ id: 'f7', title: 'Your name', value: 'Ada' }] },
    { 'answers.your_name': 'Ada' },
  ],
  [
    'question and answer as texts',
    { form: [{ question: 'How many bays?', answer: '4' }] },
    { 'form.how_many_bays': '4' },
  ],
  [
    'question and answer as objects',
    { answers: [{ question: { id: 'x', text: 'Your name' }, answer: { text: 'Ada' } }] },
    { 'answers.your_name': 'Ada' },
  ],
  [
    'a field with a reference, and the answer under its type',
    { answers: [{ type: 'email', email: 'a@b.example', field: { id: 'k', ref: 'contact_email', type: 'email' } }] },
    { 'answers.k': 'a@b.example' },
  ],
  [
    'a choice with a label',
    { answers: [{ type: 'choice', choice: { label: 'Moss' }, field: { id: 'k' } }] },
    { 'answers.k': 'Moss' },
  ],
  [
    'choices with labels',
    { answers: [{ type: 'choices', choices: { labels: ['Moss', 'Fern'] }, field: { id: 'k' } }] },
    { 'answers.k': ['Moss', 'Fern'] },
  ],
  [
    'choices as objects',
    {
      answers: [
        {
          title: 'Likes',
          value: [
            { id: 1, label: 'Moss' },
            { id: 2, label: 'Fern' },
          ],
        },
      ],
    },
    { 'answers.likes': ['Moss', 'Fern'] },
  ],
  [
    'one question answered several times',
    {
      answers: [
        { id: 'k', value: 'Moss' },
        { id: 'n', value: 4 },
        { id: 'k', value: 'Fern' },
      ],
    },
    { 'answers.k': ['Moss', 'Fern'], 'answers.n': 4 },
  ],
  [
    'two questions with the same words',
    {
      answers: [
        { id: 'a', label: 'Name', value: 'Ada' },
        { id: 'b', label: 'Name', value: 'Weir' },
      ],
    },
    { 'answers.name': 'Ada', 'answers.name_2': 'Weir' },
  ],
  [
    'a question left out',
    { answers: [{ label: 'Name', value: 'Ada' }, { label: 'Note' }] },
    { 'answers.name': 'Ada', 'answers.note': null },
  ],
  [
    'a question answered with nothing',
    {
      answers: [
        { label: 'Name', answer: {} },
        { label: 'Note', answer: { text: 'x' } },
      ],
    },
    { 'answers.note': 'x' },
  ],
  [
    'an address as an answer',
    { answers: [{ label: 'Where', value: { street: '1 Weir Lane', town: 'Leeds' } }] },
    { 'answers.where.street': '1 Weir Lane', 'answers.where.town': 'Leeds' },
  ],
  [
    'answers deep inside',
    { event: { response: { items: [{ label: 'Name', value: 'Ada' }] } } },
    { 'event.response.items.name': 'Ada' },
  ],
  [
    'answers by section',
    { sections: [{ title: 'You', answers: [{ label: 'Name', value: 'Ada' }] }] },
    { 'sections.you.name': 'Ada' },
  ],
  [
    'choices with label and value',
    { answers: [{ label: 'Likes', value: [{ label: 'Tree fern', value: 'tree-fern' }] }] },
    { 'answers.likes': ['tree-fern'] },
  ],
  ['questions in another alphabet', { answers: [{ label: 'Ваше имя?', value: 'Ада' }] }, { 'answers.ваше_имя': 'Ада' }],
  ['questions of punctuation alone', { answers: [{ label: '???', id: 'z', value: 1 }] }, { 'answers.z': 1 }],
  [
    'a question of many words',
    { answers: [{ label: 'x'.repeat(200), value: 1 }] },
    { [`answers.${'x'.repeat(60)}`]: 1 },
  ],
  [
    'a file by its address',
    { answers: [{ label: 'Plan', type: 'file', value: [{ url: 'https://files.example/a.pdf', name: 'a.pdf' }] }] },
    { 'answers.plan': ['a.pdf'] },
  ],
  ['yes and no', { answers: [{ label: 'Agree', value: false }] }, { 'answers.agree': false }],
  ['zero', { answers: [{ label: 'Bays', value: 0 }] }, { 'answers.bays': 0 }],
  [
    'with what is about the answer',
    { answers: [{ label: 'Bays', value: 1, required: true, position: 3, page: 1 }] },
    { 'answers.bays': 1 },
  ],
  ['capitals in the names of properties', { Answers: [{ Question: 'Bays', Answer: 4 }] }, { 'Answers.bays': 4 }],
  ['several values', { answers: [{ key: 'likes', values: ['moss', 'fern'] }] }, { 'answers.likes': ['moss', 'fern'] }],
  [
    'a list mixed with texts',
    { list: [{ label: 'a', value: 1 }, 'b'] },
    { 'list[0].label': 'a', 'list[0].value': 1, 'list[1]': 'b' },
  ],
  ['an object by question', { answers: { q1: { label: 'Name', value: 'Ada' } } }, { 'answers.q1': 'Ada' }],
  [
    'beside other things',
    { id: 'e1', at: '2027-01-01', answers: [{ label: 'Name', value: 'Ada' }] },
    { id: 'e1', at: '2027-01-01', 'answers.name': 'Ada' },
  ],
  [
    'names with brackets',
    { 'field[email]': 'a@b.example', 'field[town]': 'Leeds' },
    { 'field.email': 'a@b.example', 'field.town': 'Leeds' },
  ],
  ['a name with brackets beside its beginning', { a: 1, 'a[b]': 2 }, { a: 1, '["a[b]"]': 2 }],
  ['a list by brackets', { 'likes[]': ['moss', 'fern'] }, { 'likes[0]': 'moss', 'likes[1]': 'fern' }],
  [
    'a page builder’s ids, titles and values by brackets',
    { 'f[x1][title]': 'Your name', 'f[x1][value]': 'Ada', 'f[x2][title]': 'Town', 'f[x2][value]': 'Leeds' },
    { 'f.x1': 'Ada', 'f.x2': 'Leeds' },
  ],
  ['JSON in a text', { sent: '{"person": {"name": "Ada"}}' }, { 'sent.person.name': 'Ada' }],
  ['what only begins like JSON', { sent: '{not so}', note: '[sic]' }, { sent: '{not so}', note: '[sic]' }],
  ['values under one tag', { item: { a: { S: 'Ada' }, b: { S: 'Weir' } } }, { 'item.a': 'Ada', 'item.b': 'Weir' }],
  [
    'objects that are no answers',
    { billing: { name: 'Ada', email: 'a@b.example' }, company: { name: 'Weir' } },
    { 'billing.name': 'Ada', 'billing.email': 'a@b.example', 'company.name': 'Weir' },
  ],
  [
    'a header and a row',
    { header: ['Name', 'Town'], row: ['Ada', 'Leeds'] },
    { 'row.name': 'Ada', 'row.town': 'Leeds' },
  ],
  [
    'two rows',
    {
      sheet: [
        ['Name', 'Town', 'Bays'],
        ['Ada', 'Leeds', 4],
      ],
    },
    { 'sheet.name': 'Ada', 'sheet.town': 'Leeds', 'sheet.bays': 4 },
  ],
  [
    'pairs',
    {
      said: [
        ['Name', 'Ada'],
        ['Town', 'Leeds'],
        ['Bays', 4],
      ],
    },
    { 'said.name': 'Ada', 'said.town': 'Leeds', 'said.bays': 4 },
  ],
  [
    'questions and answers apart, the questions by id',
    {
      form: {
        fields: [
          { id: 'q1', title: 'Your name' },
          { id: 'q2', title: 'Town' },
        ],
      },
      answers: [
        { field: { id: 'q1' }, text: 'Ada' },
        { field: { id: 'q2' }, text: 'Leeds' },
      ],
    },
    { 'answers.q1': 'Ada', 'answers.q2': 'Leeds' },
  ],
  [
    'questions that nothing answers stay',
    { fields: [{ id: 'q1', title: 'Your name' }], note: 'x' },
    { 'fields[0].id': 'q1', 'fields[0].title': 'Your name', note: 'x' },
  ],
  [
    'labels by id',
    { data: { q1: 'Ada', q2: 'Leeds' }, labels: { q1: 'Your name', q2: 'Town' } },
    { 'data.q1': 'Ada', 'data.q2': 'Leeds' },
  ],
  [
    'ids of options',
    {
      answers: [
        {
          id: 'k',
          label: 'Likes',
          value: ['o1', 'o3'],
          options: [
            { id: 'o1', text: 'Moss' },
            { id: 'o2', text: 'Fern' },
          ],
        },
      ],
    },
    { 'answers.likes': ['Moss', 'o3'] },
  ],
  [
    'a text that is the question, since others answer',
    {
      a: [
        { name: 'x', text: 'Your name', answer: 'Ada' },
        { name: 'head', text: 'Welcome' },
      ],
    },
    { 'a.your_name': 'Ada', 'a.welcome': null },
  ],
  [
    'what stands beside an answer',
    { a: [{ label: 'Phone', value: '020 7946 0018', extension: '12' }] },
    { 'a.phone': '020 7946 0018', 'a.phone.extension': '12' },
  ],
];

test.each(SHAPES)('%s', (_, payload, fields) => {
  expect(Object.fromEntries(payloadFields(payload).map(({ key, value }) => [key, value]))).toEqual(fields);
  for (const [key, value] of Object.entries(fields)) expect(answerAt(payload, key)).toEqual(value);
});

test('a question keeps the sender’s words and the place of its answer', () => {
  const payload = { a: [{ question: { id: 'x', text: 'Your name' }, answer: { text: 'Ada' } }] };
  expect(payloadFields(payload)).toEqual([
    { key: 'a.your_name', label: 'Your name', pointer: '/a/0/answer/text', value: 'Ada' },
  ]);
});

test('questions that stand apart are the labels of their answers, wherever the answers stand', () => {
  const questions = [{ id: 'q1', title: 'Your name' }];
  const labels = (payload: JsonObject) =>
    payloadFields(payload).map(({ key, label, pointer }) => [key, label, pointer]);
  expect(labels({ questions, 'a[q1]': 'Ada' })).toEqual([['a.q1', 'Your name', '/a[q1]']]);
  expect(labels({ questions, sent: '{"q1": "Ada"}' })).toEqual([['sent.q1', 'Your name', '/sent']]);
  expect(labels({ q1: { first: 'Ada' }, questions })).toEqual([['q1.first', 'Your name: first', '/q1/first']]);
});

test('an answer is found by where it stood before its shape was known', () => {
  const payload = { answers: { q1: { label: 'Name', value: 'Ada' } }, 'f[x]': 'Weir' };
  for (const key of ['answers.q1', 'answers.q1.value', 'Answers.Q1']) expect(answerAt(payload, key)).toBe('Ada');
  for (const key of ['f.x', '["f[x]"]']) expect(answerAt(payload, key)).toBe('Weir');
});

test('whatever is sent, every field is found by its key, none twice, and nothing of it is made up', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string({ maxLength: 12 }), fc.jsonValue({ maxDepth: 5 })), (sent) => {
      const payload = sent as JsonObject;
      const fields = payloadFields(payload);
      expect(new Set(fields.map(({ pointer, key }) => `${pointer} ${key}`)).size).toBe(fields.length);
      for (const { key, value } of fields)
        expect(answerAt(payload, key)).toEqual(fields.find((one) => one.key === key)!.value ?? value);
    }),
  );
});

test('an answer is found by its id too, and by its place', () => {
  const payload = { a: [{ id: 'F7', title: 'Your name', value: 'Ada' }] };
  for (const key of ['a.your_name', 'a.f7', 'a[0].value']) expect(answerAt(payload, key)).toBe('Ada');
});

test.each<[string, JsonObject, JsonValue | undefined]>([
  ['e_mail', { 'E-Mail': 'a' }, 'a'],
  ['Your name', { your_name: 'a' }, 'a'],
  ['person.firstName', { Person: { first_name: 'a' } }, 'a'],
  ['email', { email: 'a', 'e-mail': 'b' }, 'a'],
  ['e-mail', { email: 'a', 'e-mail': 'b' }, 'b'],
  ['email', { mail: 'a' }, undefined],
  ['constructor', {}, undefined],
])('%s is found in %j', (key, payload, value) => expect(answerAt(payload, key)).toBe(value));

// What were read anew from each level around it would take twice the time with each.
test.each<[string, (inner: JsonValue) => JsonValue]>([
  ['lists of values', (value) => [{ value }]],
  ['values', (value) => ({ value })],
  ['answers', (value) => ({ a: { label: 'A', value }, b: { label: 'B', value: 1 } })],
  ['questions with answers', (answer) => ({ items: [{ id: 1, title: 'A', answer }] })],
])('%s within each other, nearly as deep as may be, are read', (_, around) => {
  let value: JsonValue = 'x';
  for (let depth = 0; depth < 60; depth += 1) value = around(value);
  expect(payloadFields({ deep: value }).some((field) => field.value === 'x' || String(field.value) === 'x')).toBe(true);
});
