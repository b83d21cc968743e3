import { type OwnerRule, type Value } from '@haycart/core';
import { Link } from 'react-router';
import { OwnerChoice } from '../../components/owner-choice';
import { SelectField } from '../../components/text-field';
import type { EditorProps } from './editor';
import { RecordRow, ValueRow } from './rows';
import { without } from './without';

const PERSON = 'person';

/** Whom a message is for, what it says, and which record it leads to. */
export function MessageEditor({ followUp, put, definition: { writes }, destination, incoming, sample }: EditorProps) {
  const to = followUp.to as { channel: string } | { person: OwnerRule };
  const channels = destination.channels ?? [];
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
