import type { Readable } from 'node:stream';
import { answerAt, isJsonObject, type JsonValue } from '@haycart/core';
import type { ProfileFieldShape, SubmissionShape } from '@haycart/api';
import { exportTable, exportTexts, type ExportCell, type ExportColumn } from '../platform/export-file';

/** How submissions can be taken away. */
export const SUBMISSION_FORMATS = ['csv', 'xlsx', 'jsonl'] as const;
export type SubmissionFormat = (typeof SUBMISSION_FORMATS)[number];

const COLUMNS: ExportColumn<SubmissionShape>[] = [
  { heading: 'Submission', cell: ({ id }) => id },
  { heading: 'Received', cell: ({ receivedAt }) => new Date(receivedAt) },
  { heading: 'Intake', cell: ({ intake }) => intake.name },
  { heading: 'Who', cell: ({ who }) => who },
  { heading: 'E-mail', cell: ({ email }) => email },
  { heading: 'Source', cell: ({ source }) => source },
  { heading: 'Outcome', cell: ({ runs, state }) => runs.map(({ outcome }) => outcome).join('; ') || state },
  { heading: 'What became of it', cell: ({ runs }) => runs.map(summaryOf).join('; ') },
];

const ALL_ANSWERS: ExportColumn<SubmissionShape> = {
  heading: 'Answers',
  cell: ({ payload, unreadable }) => (payload ? JSON.stringify(payload) : unreadable),
};

/**
 * Submissions as a file. Those of one intake have a column for each field that it ever sent; those of several have their
 * answers in one, as JSON.
 */
export function exportSubmissions(
  format: SubmissionFormat,
  fields: readonly Pick<ProfileFieldShape, 'key' | 'label'>[] | null,
  portions: AsyncIterable<SubmissionShape[]>,
): Readable {
  if (format === 'jsonl') return exportTexts(portions, (submission) => `${JSON.stringify(submission)}\n`);
  return exportTable(
    format,
    'Submissions',
    [...COLUMNS, ...(fields ? answerColumns(fields) : [ALL_ANSWERS])],
    portions,
  );
}

const ITEM = /\[\d+\]$/;

/** A column for each field, under its name for people; where two have the same, their keys tell them apart. */
function answerColumns(fields: readonly Pick<ProfileFieldShape, 'key' | 'label'>[]): ExportColumn<SubmissionShape>[] {
  const keys = new Set(fields.map(({ key }) => key));
  // A list stands in the column of its own; its first item is a field beside it.
  const told = fields.filter(({ key }) => !ITEM.test(key) || !keys.has(key.replace(ITEM, '')));
  const times = new Map<string, number>();
  for (const { heading } of COLUMNS) times.set(heading, 1);
  for (const { label } of told) times.set(label, (times.get(label) ?? 0) + 1);
  return told.map(({ key, label }) => ({
    heading: times.get(label)! > 1 ? `${label} (${key})` : label,
    cell: ({ payload }) => (isJsonObject(payload) ? answerCell(answerAt(payload, key)) : null),
  }));
}

function answerCell(answer: JsonValue | undefined): ExportCell {
  if (answer === undefined || answer === null) return null;
  if (typeof answer !== 'object') return answer;
  const isPlainList = Array.isArray(answer) && answer.every((one) => one === null || typeof one !== 'object');
  return isPlainList ? answer.join('; ') : JSON.stringify(answer);
}

function summaryOf({ route, summary }: SubmissionShape['runs'][number]): string {
  return `${route.name}: ${summary}`;
}
