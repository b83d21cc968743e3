import type { RouteDefinition, Write } from '@haycart/core';
import { SelectField } from '../components/text-field';
import { changeWrite } from './draft';

const KEY: Partial<Record<Write['record'], 'email' | 'domain'>> = { contact: 'email', company: 'domain' };
const KEY_WORDS = { email: 'e-mail', domain: 'domain' } as const;

/** How each record is recognised, and what then. */
export function Recognise({ definition }: { definition: RouteDefinition }) {
  const writes = definition.writes.filter(({ record }) => record !== 'deal');
  if (!writes.length) return <p className="pl-9 text-muted">The route writes no contact and no company.</p>;
  return (
    <div className="flex flex-col gap-4 pl-9">
      {writes.map((write) => (
        <RecogniseOne key={write.as} write={write} />
      ))}
    </div>
  );
}

function RecogniseOne({ write }: { write: Write }) {
  const key = KEY[write.record];
  const by = write.match?.[0]?.by ?? '';
  const several = write.match?.length ?? 0;
  const set = (change: Partial<Write>) => changeWrite(write.as, (known) => ({ ...known, ...change }));
  return (
    <fieldset className="grid gap-3 sm:grid-cols-3">
      <legend className="mb-1 font-semibold first-letter:uppercase">{write.record}</legend>
      <SelectField
        label="Recognise by"
        value={several > 1 ? 'other' : by}
        onChange={({ target }) => set({ match: target.value ? [{ by: target.value as 'email' | 'domain' }] : [] })}
      >
        <option value="">nothing: every one is new</option>
        {key && <option value={key}>{KEY_WORDS[key]}</option>}
        {several > 1 && <option value="other">several rules</option>}
      </SelectField>
      <SelectField
        label="When it is known"
        value={write.whenMatched ?? 'update'}
        disabled={!by}
        onChange={({ target }) => set({ whenMatched: target.value as Write['whenMatched'] & string })}
      >
        <option value="update">update it</option>
        <option value="fill-blanks">fill only what is blank</option>
        <option value="leave">leave it as it is</option>
      </SelectField>
      <SelectField
        label="When it is not"
        value={write.whenNone ?? 'create'}
        disabled={!by}
        onChange={({ target }) => set({ whenNone: target.value as Write['whenNone'] & string })}
      >
        <option value="create">create it</option>
        <option value="skip">write none</option>
      </SelectField>
    </fieldset>
  );
}
