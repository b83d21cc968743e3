import type { DocumentRow } from '../mail/mail-attachment';
import { answerText } from '../payload/answer-text';
import { payloadFields } from '../payload/fields';
import type { Submission } from '../payload/submission';
import { capitalised, shorten, storableText } from '../text';

const MOST_ROWS = 500;
const LONGEST_TEXT = 20_000;
const LONGEST_ALL = 200_000;
const LONGEST_NAME = 80;

/** All that was sent as rows, then when it came and from where. What goes beyond the most that a document takes is said, and not left out unseen. */
export function answersAsRows({ payload, visit, receivedAt }: Submission): DocumentRow[] {
  const rows: DocumentRow[] = [];
  let room = LONGEST_ALL;
  let left = 0;
  for (const { key, label, value } of payloadFields(payload)) {
    const whole = storableText(answerText(value));
    if (whole === '') continue;
    const text = shorten(whole, Math.min(LONGEST_TEXT, room));
    if (rows.length >= MOST_ROWS || room <= 0) left += 1;
    else rows.push({ label: label ?? spelled(key), text });
    room -= text.length;
  }
  if (left) rows.push({ text: `${left} more answers are in Hay Cart alone: there are too many for a document.` });
  rows.push({ label: 'Received', text: receivedAt.replace('T', ' ').replace(/(:\d\d)(\.\d+)?Z$/, '$1 UTC') });
  if (visit.page) rows.push({ label: 'From the page', text: visit.page });
  return rows;
}

/** A name that any system takes as that of a file: `Site survey, Ida Weir.pdf`. */
export function fileName(title: string): string {
  const plain = title
    .normalize('NFC')
    .replaceAll(/[\p{C}\\/:*?"<>|]+/gu, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim()
    .replace(/^[.\s]+/, '');
  return `${[...plain].slice(0, LONGEST_NAME).join('').trim() || 'Document'}.pdf`;
}

/** A key as a label: `first_name` as `First name`. */
function spelled(key: string): string {
  return capitalised(key.replaceAll(/[_-]+/g, ' ').trim() || key);
}
