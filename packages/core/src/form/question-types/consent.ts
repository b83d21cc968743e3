import type { QuestionType } from '../question-type';

export const consent: QuestionType = {
  name: 'consent',
  label: 'Consent',
  holds: 'yes-no',
  longest: 200,
  height: () => 34,
  blank: (words) => words.requiredConsent,
  read: (given) => ({ value: given !== 'no' }),
  flaws: ({ version }) =>
    version
      ? []
      : [
          {
            code: 'consent-without-version',
            severity: 'warning',
            text: 'names no version of its words.',
            at: 'version',
          },
        ],
  example: { takes: ['yes', true] },
};
