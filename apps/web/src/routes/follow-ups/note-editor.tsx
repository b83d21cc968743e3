import type { Value } from '@haycart/core';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';
import { without } from './without';

/** What a note says, and on which record. */
export function NoteEditor({ followUp, put, definition: { writes }, incoming, sample }: EditorProps) {
  const parts = { writes, incoming, sample };
  return (
    <>
      <RecordRow name="On" value={followUp.on} change={(on) => put({ ...followUp, on })} writes={writes} />
      <ValueRow
        {...parts}
        name="Title"
        label="the title"
        value={followUp.title as Value | undefined}
        change={(title) => put(without(followUp, 'title', title))}
      />
      <ValueRow
        {...parts}
        name="Text"
        label="the text"
        value={followUp.body as Value}
        change={(body = { parts: [] }) => put({ ...followUp, body })}
      />
    </>
  );
}
