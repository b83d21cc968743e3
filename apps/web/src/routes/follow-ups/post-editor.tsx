import type { Value } from '@haycart/core';
import { Link } from 'react-router';
import { SelectField, TextField } from '../../components/text-field';
import { PartsCell } from '../parts-cell';
import type { EditorProps } from './editor';

/** Where a post goes, and what it says. */
export function PostEditor({ followUp, put, definition, incoming, sample }: EditorProps) {
  const body = followUp.body as Value | undefined;
  const setBody = (next: Value | undefined) => {
    const { body: _, ...rest } = followUp;
    put(next ? { ...rest, body: next } : rest);
  };
  return (
    <>
      <span className="text-muted">Address</span>
      <TextField
        label="Address to post to"
        hideLabel
        type="url"
        inputMode="url"
        spellCheck={false}
        placeholder="https://hooks.example/enquiries"
        value={String(followUp.to ?? '')}
        onChange={({ target }) => put({ ...followUp, to: target.value })}
      />
      <span className="text-muted">Sends</span>
      <SelectField
        label="What it sends"
        hideLabel
        value={body ? 'message' : 'records'}
        onChange={({ target }) => setBody(target.value === 'message' ? { parts: [] } : undefined)}
      >
        <option value="records">the submission and the records, as JSON</option>
        <option value="message">a message of your own</option>
      </SelectField>
      {body && (
        <>
          <span className="text-muted">Message</span>
          <div className="rounded border border-faint bg-raised px-1.5 py-1">
            <PartsCell
              value={body}
              change={setBody}
              earlier={definition.writes}
              incoming={incoming}
              sample={sample}
              label="the message"
            />
          </div>
        </>
      )}
      <span aria-hidden className="max-sm:hidden" />
      <p className="text-small text-muted">
        {body ? 'Sent as {"text": …}, or as it is where it is JSON. ' : ''}Signed with the secret under{' '}
        <Link to="/set-up/outbox" className="text-slate underline">
          Set up, Outbox
        </Link>
        , where you also see what was sent.
      </p>
    </>
  );
}
