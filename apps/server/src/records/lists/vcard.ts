import type { RecordShape } from '@haycart/api';
import type { FieldValue } from '@haycart/core';

const LONGEST_LINE = 75;

/** A contact as vCard 4.0 (RFC 6350). */
export function vCard({ id, name, values, links, tags, updatedAt }: RecordShape): string {
  const all = (many: FieldValue | undefined, one: FieldValue | undefined) =>
    (Array.isArray(many) ? many : [one]).filter((value): value is string => typeof value === 'string');
  const line = (property: string, value: FieldValue | undefined) =>
    typeof value === 'string' && value !== '' ? [`${property}:${escaped(value)}`] : [];
  const lines = [
    'BEGIN:VCARD',
    'VERSION:4.0',
    `UID:urn:uuid:${id}`,
    `FN:${escaped(name)}`,
    `N:${escaped(String(values.last_name ?? ''))};${escaped(String(values.first_name ?? ''))};;;`,
    ...all(values.emails, values.email).map(
      (email, index) => `EMAIL;PREF=${Math.min(index + 1, 100)}:${escaped(email)}`,
    ),
    ...all(values.phones, values.phone).map(
      (phone, index) => `TEL;VALUE=uri;PREF=${Math.min(index + 1, 100)}:tel:${phone}`,
    ),
    ...line('ORG', links.company?.[0]?.name),
    ...line('TITLE', values.job_title),
    ...(values.country ? [`ADR:;;;;;;${escaped(String(values.country))}`] : []),
    ...(tags.length ? [`CATEGORIES:${tags.map(escaped).join(',')}`] : []),
    `REV:${updatedAt.replace(/[-:]|\.\d+/g, '')}`,
    'END:VCARD',
  ];
  return lines.map((one) => `${folded(one)}\r\n`).join('');
}

/** Text as RFC 6350, section 3.4, wants it. */
function escaped(text: string): string {
  return text.replace(/[\\,;]/g, '\\$&').replace(/\r\n|\r|\n/g, '\\n');
}

/** Lines of at most 75 octets, never cut within a character (section 3.2). */
function folded(line: string): string {
  const parts: string[] = [];
  let part = '';
  for (const character of line) {
    if (Buffer.byteLength(part + character) > LONGEST_LINE - (parts.length ? 1 : 0)) {
      parts.push(part);
      part = '';
    }
    part += character;
  }
  return [...parts, part].join('\r\n ');
}
