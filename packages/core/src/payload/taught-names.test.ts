import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JsonValue } from '../json';
import { taughtByText, taughtNames } from './taught-names';

const KEYS = ['form.answers.q1', 'form.answers.q_2', 'x["email.work"]', 'id'];

describe('names are taught by', () => {
  test.each<[string, JsonValue]>([
    [
      'a definition with a list of questions',
      {
        fields: [
          { id: 'q1', title: 'Your name' },
          { id: 'Q-2', label: 'Your town' },
        ],
      },
    ],
    ['questions by id', { questions: { q1: { text: 'x', title: 'Your name' }, q2: { label: 'Your town' } } }],
    [
      'questions in pages in sections',
      {
        pages: [
          {
            sections: [
              {
                items: [
                  { ref: 'q1', prompt: 'Your name' },
                  { key: 'q_2', question: 'Your town' },
                ],
              },
            ],
          },
        ],
      },
    ],
    [
      'an older submission',
      {
        answers: [
          { question: { id: 'q1', title: 'Your name' }, answer: { text: 'Ada' } },
          { question: { id: 'q2', title: 'Your town' }, answer: { text: 'Ilkley' } },
        ],
      },
    ],
    [
      'the question as an object beside the id',
      [
        { id: 'q1', question: { id: 7, title: 'Your name' } },
        { id: 'q2', title: 'Your town' },
      ],
    ],
  ])('%s', (_, document) => {
    expect(taughtNames(document, KEYS)).toEqual({ 'form.answers.q1': 'Your name', 'form.answers.q_2': 'Your town' });
  });

  test('nothing that says the same as the id, is no question, or says two things', () => {
    const document = [
      { id: 'q1', title: 'Q1' },
      { id: 'q_2', title: 'x'.repeat(300) },
      { id: 'email.work', title: 'Write to' },
      { id: 'email.work', title: 'Call' },
    ];
    expect(taughtNames(document, KEYS)).toEqual({});
  });
});

test.each([
  ['{"q1": "Your name", "q_2": "Your town"}'],
  ['{"form": {"labels": {"q1": "Your name", "q_2": "Your town"}}}'],
  ['id,question\nq1,Your name\nQ-2,Your town'],
  ['q1;Your name\nq_2;Your town'],
])('a text that is pasted teaches names: %s', (text) =>
  expect(taughtByText(text, KEYS)).toEqual({ 'form.answers.q1': 'Your name', 'form.answers.q_2': 'Your town' }),
);

test.each(['{"q1":', 'q1', ''])('“%s” teaches nothing yet', (text) => expect(taughtByText(text, KEYS)).toBeNull());

test('whatever the document, a name is a text for a field that wants one', () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), (document) => {
      const names = taughtNames(document as JsonValue, KEYS);
      expect(Object.keys(names).every((key) => KEYS.includes(key))).toBe(true);
      expect(Object.values(names).every((name) => typeof name === 'string' && name !== '')).toBe(true);
    }),
  );
});
