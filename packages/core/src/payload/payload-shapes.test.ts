import { expect, test } from '@jest/globals';
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
  [
    'an object by question',
    { answers: { q1: { label: 'Name', value: 'Ada' } } },
    { 'answers.q1.label': 'Name', 'answers.q1.value': 'Ada' },
  ],
  [
    'beside other things',
    { id: 'e1', at: '2027-01-01', answers: [{ label: 'Name', value: 'Ada' }] },
    { id: 'e1', at: '2027-01-01', 'answers.name': 'Ada' },
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
