import type { QuestionType } from '../question-type';

export const hidden: QuestionType = {
  name: 'hidden',
  label: 'Not shown',
  holds: 'text',
  longest: 1_000,
  height: () => 0,
  blank: () => null,
  read: (given) => ({ value: given }),
  flaws: ({ value, from, required }) =>
    value || from
      ? []
      : [
          {
            code: required ? 'required-but-hidden' : 'hidden-without-value',
            severity: required ? 'error' : 'warning',
            text: 'is not shown and holds nothing: give it a value, or a parameter to take it from.',
          },
        ],
  example: { takes: ['web', 'web'] },
};
