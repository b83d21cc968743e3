import { HOLD_KINDS, holdKindOf, PROBLEM_CODES, REASON_CODES, type ReasonCode } from '../codes';
import { markdownTable } from './markdown-table';

const OUTCOMES = { hold: 'held', skip: 'skipped', fail: 'failed' };

/** Returns the page of docs that lists every code of problems and reasons, as Markdown. */
export function codesPage(): string {
  const reasons = Object.entries(REASON_CODES).map(([code, { outcome, means }]) => {
    const hold = holdKindOf(code as ReasonCode);
    return [`\`${code}\``, OUTCOMES[outcome], means, hold ? HOLD_KINDS[hold] : '–'];
  });
  const problems = Object.entries(PROBLEM_CODES)
    .sort(([one], [other]) => (one < other ? -1 : 1))
    .map(([code, means]) => [`\`${code}\``, means]);
  return `# Codes

What programs can go by, from one table in code (\`packages/core/src/codes.ts\`); a test keeps this page the same. Beside each
code stands a sentence about the thing in question, for people. Codes never change.

## Why a run was not written

The \`reason\` of a run and of a plan.

${markdownTable(['Code', 'The run is', 'It means', 'What releases it'], reasons)}

## What is wrong with something that is checked

The \`errors\` of an answer (RFC 9457), and the \`problems\` of a plan and of a draft.

${markdownTable(['Code', 'It means'], problems)}
`;
}
