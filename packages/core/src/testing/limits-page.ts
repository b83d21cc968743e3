import { LIMITS, type Limit } from '../limits';
import { markdownTable } from './markdown-table';

const MEBIBYTE = 1_048_576;

/** Returns the page of docs that lists every limit, as Markdown. */
export function limitsPage(): string {
  const rows = Object.entries(LIMITS as Record<string, Limit>).map(([name, limit]) => [
    limit.of,
    amount(limit),
    limit.beyond || '–',
    `\`${name}\``,
  ]);
  return `# Limits

Every limit of the application, from one table in code (\`packages/core/src/limits.ts\`); a test keeps this page the same.
What is refused says so with the reason; nothing is cut without a word but where this page says it. Answers to questions of
forms have the lengths of their types besides, up to 1,000 characters for a line and 100,000 for a message.

${markdownTable(['What', 'At most', 'Beyond it', 'Name'], rows)}
`;
}

function amount({ most, unit }: Limit): string {
  if (unit !== 'bytes') return `${most.toLocaleString('en-GB')} ${unit === 'things' ? '' : unit}`.trim();
  if (most % (1_024 * MEBIBYTE) === 0) return `${most / 1_024 / MEBIBYTE} GiB`;
  return most % MEBIBYTE === 0 ? `${most / MEBIBYTE} MiB` : `${most / 1_024} KiB`;
}
