import type { Value } from '@haycart/core';
import { SelectField } from '../../components/text-field';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';
import { without } from './without';

/** What a document holds and what it is called, and with which record it is kept. */
export function DocumentEditor({ followUp, put, definition: { writes }, destination, incoming, sample }: EditorProps) {
  return (
    <>
      <RecordRow name="Kept with" value={followUp.on} change={(on) => put({ ...followUp, on })} writes={writes} />
      <span className="text-muted">Holds</span>
      <SelectField
        label="What it holds"
        hideLabel
        value={String(followUp.template ?? '')}
        onChange={({ target }) => put(without(followUp, 'template', target.value || undefined))}
      >
        <option value="">all that was sent</option>
        {(destination.templates ?? []).map(({ key, name }) => (
          <option key={key} value={key}>
            the text of “{name}”
          </option>
        ))}
      </SelectField>
      <ValueRow
        name="Title"
        label="the title"
        value={followUp.title as Value | undefined}
        change={(title) => put(without(followUp, 'title', title))}
        writes={writes}
        incoming={incoming}
        sample={sample}
      />
    </>
  );
}
