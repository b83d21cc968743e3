import { error } from '../../problem';
import { z } from '../../schema-library';
import { storableText } from '../../text';
import { liquid, parsedTemplate } from '../liquid';
import { defineFinisher } from './finisher';

export const template = defineFinisher({
  name: 'template',
  label: 'template',
  description:
    'Writes a text by a Liquid template: {{ value }} is what came so far, {{ answers.email }} another answer. It cannot loop, nor read the clock.',
  parameters: z.strictObject({
    text: z
      .string()
      .max(5_000)
      .refine(
        (text) => parsedTemplate(text) !== null,
        'is no Liquid template, or uses a tag or filter that cannot be used here',
      )
      .meta({ title: 'template' }),
  }),
  example: {
    before: 'Ada',
    after: 'ADA of Weir',
    with: { text: '{{ value | upcase }}{% if answers.firm %} of {{ answers.firm }}{% endif %}' },
    answers: { firm: 'Weir' },
  },
  finish(text, parameters, { payload }) {
    const engine = liquid();
    try {
      const written = engine.renderSync(parsedTemplate(parameters.text)!, { value: text, answers: payload }) as string;
      return { text: storableText(written) };
    } catch {
      return { text: '', problem: error('template-failed', 'The template cannot be worked out with this submission.') };
    }
  },
});
