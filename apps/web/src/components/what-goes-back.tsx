import type { TakeBackRehearsal } from '@haycart/api';
import { counted, listInWords, type RecordKind } from '@haycart/core';
import { useWords } from '../api/words';

const WHY = {
  changed: 'was changed since',
  'in-use': 'others work with it',
  gone: 'is deleted already',
} as const;

/** Whether taking back would leave everything as it is. */
export function changesNothing(rehearsal: TakeBackRehearsal): boolean {
  const { removed, changed, tasks, notes, documents, consents, notSent } = rehearsal;
  return !(changed + tasks + notes + documents + consents + notSent) && Object.values(removed).every((count) => !count);
}

/** Records that go, by kind, in words. */
export function useRemovedInWords(): (removed: TakeBackRehearsal['removed']) => string {
  const words = useWords();
  return (removed) =>
    listInWords(
      (Object.entries(removed) as [RecordKind, number][]).flatMap(([kind, count]) =>
        count ? [`${count.toLocaleString('en-GB')} ${count === 1 ? words.one(kind) : words.many(kind)}`] : [],
      ),
    );
}

/** What would go, and what would stay and why. */
export function WhatGoesBack({ rehearsal }: { rehearsal: TakeBackRehearsal }) {
  const words = useWords();
  const removed = useRemovedInWords()(rehearsal.removed);
  return (
    <>
      <ul className="flex list-disc flex-col gap-1 pl-5">
        {removed && <li>{removed} would be removed: nothing else touched them.</li>}
        {rehearsal.changed > 0 && (
          <li>
            {counted(rehearsal.values, 'value')} of {counted(rehearsal.changed, 'record')} would go back to what{' '}
            {rehearsal.values === 1 ? 'it was' : 'they were'}.
          </li>
        )}
        {rehearsal.tasks + rehearsal.notes + rehearsal.documents + rehearsal.consents > 0 && (
          <li>
            {listInWords([
              ...(rehearsal.tasks ? [counted(rehearsal.tasks, 'task')] : []),
              ...(rehearsal.notes ? [counted(rehearsal.notes, 'note')] : []),
              ...(rehearsal.documents ? [counted(rehearsal.documents, 'document')] : []),
              ...(rehearsal.consents ? [counted(rehearsal.consents, 'consent')] : []),
            ])}{' '}
            would be removed; what somebody did or changed stays.
          </li>
        )}
        {changesNothing(rehearsal) && <li>Nothing would change.</li>}
        {rehearsal.notSent > 0 && <li>{counted(rehearsal.notSent, 'message')} in the outbox would be cancelled.</li>}
        {rehearsal.sent > 0 && (
          <li>
            {counted(rehearsal.sent, 'message')} {rehearsal.sent === 1 ? 'was' : 'were'} sent already, and{' '}
            {rehearsal.sent === 1 ? 'stays' : 'stay'} with {rehearsal.sent === 1 ? 'its receiver' : 'their receivers'}.
          </li>
        )}
      </ul>
      {rehearsal.left > 0 && (
        <section>
          <h3 className="mb-1 text-[14px]">
            {counted(rehearsal.left, 'thing')} would stay as {rehearsal.left === 1 ? 'it is' : 'they are'}
          </h3>
          <ul className="max-h-[220px] overflow-y-auto rounded border border-line" tabIndex={0} aria-label="What stays">
            {rehearsal.examples.map(({ record, field, now, why }, index) => (
              <li key={index} className="border-b border-hair px-2.5 py-1 last:border-b-0">
                {words.One(record.kind)} <b className="font-semibold">{record.name}</b>
                {field && (
                  <>
                    , {field}: {now === '' ? 'blank' : now}
                  </>
                )}{' '}
                <span className="text-muted">{WHY[why]}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
