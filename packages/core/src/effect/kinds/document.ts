import { z } from '../../schema-library';
import { recordWord } from '../../destination/destination';
import type { FollowUp } from '../../definition/route-definition';
import { condition, name, value } from '../../definition/shapes';
import { renderMail, textsFor } from '../../mail/mail-template';
import { warning } from '../../problem';
import type { Value } from '../../value/value';
import { defineEffect } from '../effect';
import { mailValues, templateOf, wrongNames } from '../mail-values';
import { oneLine } from '../one-line';
import { answersAsRows, fileName } from '../made-document';

interface DocumentFollowUp extends FollowUp {
  do: 'document';
  on: string;
  /** What it is called; the name of the route when not said. */
  title?: Value;
  /** The key of the template whose text it is; all that was sent when not said. */
  template?: string;
}

/** Keeps a PDF with the record: of all that was sent, or by a template. A mail after it can have it attached. */
export const document = defineEffect<DocumentFollowUp>({
  do: 'document',
  label: 'Document',
  description:
    'Keeps a PDF with the record, of all that was sent or by a template; a mail after it can have it attached.',
  shape: z.strictObject({
    do: z.literal('document'),
    on: name,
    title: value.optional(),
    template: z.string().max(200).optional(),
    when: condition.optional(),
  }) as unknown as z.ZodType<DocumentFollowUp>,
  example: {
    settings: { do: 'document', on: 'person', title: { parts: [{ text: 'Enquiry' }] } },
    words: 'a PDF of what was sent is kept with the contact',
  },
  withValues: ({ title, ...settings }, change) => ({
    ...settings,
    ...(title ? { title: change(title, ['title']) } : {}),
  }),
  check({ template: key }, { route, destination }) {
    if (key === undefined) return [];
    const template = templateOf(destination, key);
    if (!template)
      return [
        {
          code: 'unknown-template',
          text: key ? `There is no template “${key}”.` : 'Say by which template.',
          way: ['template'],
        },
      ];
    return wrongNames(template, route, destination).map((text) => ({
      code: 'template-does-not-fit' as const,
      text,
      way: ['template'],
    }));
  },
  describe({ on, template: key }, { route, destination }) {
    const record = route.writes.find(({ as }) => as === on)?.record;
    const called = key === undefined ? 'of what was sent' : `by “${templateOf(destination, key)?.name ?? key}”`;
    return `a PDF ${called} is kept with the ${record ? recordWord(destination, record) : on}`;
  },
  plan({ title, template: key }, context) {
    const { record, route, submission, destination, workOut } = context;
    if (!record) return { words: 'Document' };
    const called = title && workOut(title);
    const problems = called?.problems ?? [];
    const line = oneLine(called?.text ?? '') || route.name;
    const words = `Document “${line}” on the ${recordWord(destination, record.kind)}`;
    if (key === undefined) {
      const rows = answersAsRows(submission);
      return { words, problems, made: { make: 'document', name: fileName(line), title: line, rows } };
    }
    const template = templateOf(destination, key);
    const rendered = template && renderMail(textsFor(template, context.submission.visit.language), mailValues(context));
    if (!rendered)
      return {
        words,
        problems: [
          ...problems,
          template
            ? warning(
                'template-failed',
                `${words} is not made: the template cannot be worked out with this submission.`,
              )
            : warning('unknown-template', `There is no template “${key}” any more, so no document is made.`),
        ],
      };
    return {
      words,
      problems,
      made: { make: 'document', name: fileName(line), title: line, rows: [{ text: rendered.text }] },
    };
  },
  adopt: (settings, adopt) =>
    settings.template === undefined ? settings : { ...settings, template: adopt('template', settings.template) },
});
