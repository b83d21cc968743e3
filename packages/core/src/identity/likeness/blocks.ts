import { phoneticCodes } from '../comparators/phonetic';
import { nicknameRoots } from '../nicknames';
import { nameSkeleton, type NameForm } from '../person-name-form';
import type { ComparedRecord } from './compared';

/** The most keys of one record, so that a record with a hundred phones does not become a hundred searches. */
const MOST = 16;
const TELLING_LOCAL = 5;
const LAST_DIGITS = 8;

/** The fields that blocks are made of: a change of others leaves a record under the same ones. */
export const BLOCK_FIELDS: ReadonlySet<string> = new Set(
  'full_name first_name last_name name email emails phone phones domain'.split(' '),
);

/**
 * The keys under which a record is found by those that may be like it: two records are compared when they have one in
 * common. Each is so narrow that few records share it, whatever their number; together they stand for every way in which a
 * record may be wrongly written. Short texts, each with a letter for its kind.
 */
export function blocksOf(record: ComparedRecord): string[] {
  switch (record.kind) {
    case 'contact':
    case 'lead':
      return distinct([...mailboxBlocks(record), ...phoneBlocks(record), ...nameBlocks(record)]);
    case 'company':
      return distinct([...firmBlocks(record), ...phoneBlocks(record)]);
    case 'deal':
      return distinct(
        record.contacts.map((id) => `c:${id}`).concat(record.firmName ? `t:${record.firmName.text}` : []),
      );
  }
}

function mailboxBlocks({ mailboxes }: ComparedRecord): string[] {
  return mailboxes.flatMap((mailbox) => {
    const local = mailbox.slice(0, mailbox.lastIndexOf('@'));
    return local.length < TELLING_LOCAL ? [`m:${mailbox}`] : [`m:${mailbox}`, `l:${local}`];
  });
}

function phoneBlocks({ phones }: ComparedRecord): string[] {
  return phones.map((phone) => `p:${phone.slice(-LAST_DIGITS)}`);
}

/** By how the name is said, by its consonants, and by one of its names within the company. */
function nameBlocks({ name, companies }: ComparedRecord): string[] {
  if (!name) return [];
  const firms = [...companies.ids, ...companies.domains];
  const family = name.family[0];
  const given = name.given[0];
  return [
    ...soundBlocks(name),
    ...firms.flatMap((firm) => [
      ...(family ? [`f:${firm} ${phoneticCodes(family)[0]}`] : []),
      ...(given
        ? nicknameRoots(given)
            .slice(0, 2)
            .map((root) => `g:${firm} ${root}`)
        : []),
    ]),
  ];
}

const soundBlocksOf = new WeakMap<NameForm, readonly string[]>();

/** By the name alone; worked out once for each form, which many records share. */
function soundBlocks(name: NameForm): readonly string[] {
  const known = soundBlocksOf.get(name);
  if (known) return known;
  const skeleton = nameSkeleton([...name.given, ...name.family]);
  const blocks = [...saidNames(name), ...(skeleton.length > 4 ? [`k:${[...skeleton].sort().join('')}`] : [])];
  soundBlocksOf.set(name, blocks);
  return blocks;
}

/** Given and family name as they are said, in either order, since names stand in the wrong field at times. */
function saidNames({ given, family }: NameForm): string[] {
  const [first] = given;
  if (!first || !family.length) return (first ?? family[0]) ? [`o:${first ?? family[0]!}`] : [];
  return family.slice(0, 3).flatMap((word) =>
    nicknameRoots(first)
      .slice(0, 3)
      .map((root) => `n:${[root, nicknameRoots(word)[0]!].map(said).sort().join(' ')}`),
  );
}

function said(word: string): string {
  return word.startsWith('~') ? word : phoneticCodes(word)[0];
}

function firmBlocks({ firmName, domain }: ComparedRecord): string[] {
  const label = domain?.split('.')[0];
  if (!firmName) return domain ? [`d:${domain}`, `r:${label}`] : [];
  const [first, second] = firmName.words;
  return [
    ...(domain ? [`d:${domain}`, `r:${label}`] : [`r:${firmName.words.join('')}`]),
    `t:${firmName.words.join('')}`,
    ...(first && second
      ? [
          `s:${[first, second]
            .map((word) => phoneticCodes(word)[0])
            .sort()
            .join(' ')}`,
        ]
      : [`s:${first}`]),
  ];
}

function distinct(keys: readonly string[]): string[] {
  return [...new Set(keys)].slice(0, MOST).map((key) => key.slice(0, 120));
}
