import { type OwnerRule, type Value } from '@haycart/core';
import { Link } from 'react-router';
import { OwnerChoice } from '../../components/owner-choice';
import { useTables } from '../draft';
import { SelectField, TextField } from '../../components/text-field';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';
import { without } from './without';

const PERSON = 'person';
const USUAL_MINUTES = 5;

/** Whom a message is for, what it says, and which record it leads to. */
export function MessageEditor({ followUp, put, definition: { writes }, destination, incoming, sample }: EditorProps) {
  const tables = useTables();
  const to = followUp.to as { channel: string } | { person: OwnerRule };
  const channels = destination.channels ?? [];
  const together = followUp.together as number | undefined;
  const choose = (value: string) => {
    if (value === PERSON) return put({ ...followUp, to: { person: { enteredBy: true } }, by: 'text' });
    const channel = channels.find(({ key }) => key === value);
    put({ ...followUp, to: { channel: value }, by: channel?.by ?? 'chat' });
  };
  return (
    <>
      <span className="text-muted">To</span>
      <SelectField
        label="Who is told"
        hideLabel
        value={'channel' in to ? to.channel : PERSON}
        onChange={({ target }) => choose(target.value)}
      >
        <option value="">choose a channel</option>
        {channels.map(({ key, name, by }) => (
          <option key={key} value={key}>
            {name}, by {by === 'chat' ? 'chat' : 'text message'}
          </option>
        ))}
        <option value={PERSON}>a colleague, by text message</option>
      </SelectField>
      {'person' in to && (
        <>
          <span className="text-muted">Colleague</span>
          <OwnerChoice
            tables={tables}
            label="Which colleague"
            hideLabel
            record="contact"
            owner={to.person}
            destination={destination}
            change={(person) => put({ ...followUp, to: { person: person ?? { enteredBy: true } } })}
          />
        </>
      )}
      <ValueRow
        name="Says"
        label="the message"
        value={followUp.body as Value}
        change={(body = { parts: [] }) => put({ ...followUp, body })}
        writes={writes}
        incoming={incoming}
        sample={sample}
      />
      <RecordRow
        name="Links to"
        none="no record"
        value={followUp.link as string | undefined}
        change={(link) => put(without(followUp, 'link', link))}
        writes={writes}
      />
      <span className="text-muted">When</span>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={followUp.inHours === true}
            onChange={({ target }) => put(without(followUp, 'inHours', target.checked || undefined))}
          />
          in working hours only
        </label>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={together !== undefined}
            onChange={({ target }) => put(without(followUp, 'together', target.checked ? USUAL_MINUTES : undefined))}
          />
          in one with others that come close together
        </label>
        {together !== undefined && (
          <span className="flex items-center gap-1.5">
            within
            <TextField
              label="For how many minutes it waits for others"
              hideLabel
              type="number"
              min={1}
              max={1_440}
              value={together}
              onChange={({ target }) =>
                put({ ...followUp, together: Math.min(1_440, Math.max(1, Math.round(Number(target.value)) || 1)) })
              }
              className="!w-20 text-right tabular-nums"
            />
            minutes
          </span>
        )}
      </div>
      {!channels.length && (
        <>
          <span aria-hidden className="max-sm:hidden" />
          <p className="text-small text-muted">
            No channel is set up yet. Add one under{' '}
            <Link to="/set-up/channels" className="text-slate underline">
              Set up, Channels
            </Link>
            .
          </p>
        </>
      )}
    </>
  );
}
