import { isKeptApart, plainName, type ChannelRules, type JoinedNames } from '@haycart/core';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../components/button';
import { Sheet } from '../../components/sheet';
import { TextField } from '../../components/text-field';

type Change = (edit: (rules: ChannelRules) => ChannelRules) => void;

/** Spellings that count as one source, and suggestions for more. */
export function JoinedNamesEditor({
  rules,
  alike,
  change,
}: {
  rules: ChannelRules;
  alike: readonly JoinedNames[];
  change: Change;
}) {
  const { names, apart = [] } = rules;
  const isJoined = new Set(names.flatMap(({ name, spellings }) => [name, ...spellings].map(plainName)));
  const open = alike.flatMap(({ name, spellings }) => {
    const left = spellings.filter(
      (spelling) => !isJoined.has(plainName(spelling)) && !isKeptApart(spelling, name, rules),
    );
    return left.length ? [{ name, spellings: left }] : [];
  });
  return (
    <Sheet>
      <section aria-label="Names" className="flex flex-col gap-3 p-4">
        <div>
          <h2 className="text-lg leading-6">One source, several spellings</h2>
          <p className="text-muted">Capitals, marks and spaces never matter.</p>
        </div>
        <SpellingsByName
          names={names}
          label={(spelling, name) => `${spelling} is not ${name}`}
          remove={(name, spelling) => change((now) => ({ ...now, names: parted(now.names, name, spelling) }))}
        />
        {open.map(({ name, spellings }) => (
          <div key={name} className="flex items-start gap-3 rounded bg-straw-soft px-3 py-2">
            <p className="min-w-0 flex-1 break-words">
              <b className="font-semibold">{spellings.join(', ')}</b> {spellings.length === 1 ? 'looks' : 'look'} like{' '}
              <b className="font-semibold">{name}</b>
            </p>
            <Button onClick={() => change((now) => ({ ...now, names: joined(now.names, name, spellings) }))}>
              Join
            </Button>
            <Button
              look="quiet"
              onClick={() => change((now) => ({ ...now, apart: joined(now.apart ?? [], name, spellings) }))}
            >
              Not the same
            </Button>
          </div>
        ))}
        {!names.length && !apart.length && !open.length && <p className="text-muted">No two sources look like one.</p>}
        {apart.length > 0 && (
          <div>
            <h3 className="mb-1 text-label text-muted">Look alike and are not the same</h3>
            <SpellingsByName
              names={apart}
              label={(spelling, name) => `${spelling} may be ${name}`}
              remove={(name, spelling) => change((now) => ({ ...now, apart: parted(now.apart ?? [], name, spelling) }))}
            />
          </div>
        )}
        <AddSpelling
          add={(name, spelling) => change((now) => ({ ...now, names: joined(now.names, name, [spelling]) }))}
        />
      </section>
    </Sheet>
  );
}

/** Names with their spellings, each of which can be taken away. */
function SpellingsByName({
  names,
  label,
  remove,
}: {
  names: readonly JoinedNames[];
  /** What taking a spelling away says. */
  label: (spelling: string, name: string) => string;
  remove: (name: string, spelling: string) => void;
}) {
  if (!names.length) return null;
  return (
    <ul className="divide-y divide-hair border-y border-hair">
      {names.map(({ name, spellings }) => (
        <li key={name} className="py-2">
          <p className="font-semibold break-words">{name}</p>
          <ul className="mt-1 flex flex-wrap gap-1.5">
            {spellings.map((spelling) => (
              <li
                key={spelling}
                className="flex h-6 max-w-full items-center gap-1 rounded border border-line bg-ground pl-2"
              >
                <span className="truncate">{spelling}</span>
                <IconButton
                  label={label(spelling, name)}
                  className="!size-6 text-muted"
                  onClick={() => remove(name, spelling)}
                >
                  <X className="size-3.5" aria-hidden />
                </IconButton>
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  );
}

function AddSpelling({ add }: { add: (name: string, spelling: string) => void }) {
  const [spelling, setSpelling] = useState('');
  const [name, setName] = useState('');
  const isComplete = plainName(spelling) !== '' && plainName(name) !== '';
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!isComplete) return;
        add(name.trim(), spelling.trim());
        setSpelling('');
        setName('');
      }}
    >
      <TextField
        label="Spelling"
        className="!w-44"
        value={spelling}
        maxLength={200}
        onChange={({ target }) => setSpelling(target.value)}
      />
      <TextField
        label="Counts as"
        className="!w-44"
        value={name}
        maxLength={200}
        onChange={({ target }) => setName(target.value)}
      />
      <Button type="submit" disabled={!isComplete}>
        <Plus className="size-4" aria-hidden /> Add
      </Button>
    </form>
  );
}

/** Adds spellings to a name, which may be listed already under another spelling. */
function joined(names: readonly JoinedNames[], name: string, spellings: readonly string[]): JoinedNames[] {
  const at = names.findIndex((one) => [one.name, ...one.spellings].some((text) => plainName(text) === plainName(name)));
  if (at === -1) return [...names, { name, spellings: [...spellings] }];
  const known = names[at]!;
  return names.with(at, { ...known, spellings: [...new Set([...known.spellings, ...spellings])] });
}

function parted(names: readonly JoinedNames[], name: string, spelling: string): JoinedNames[] {
  return names.flatMap((one) => {
    if (one.name !== name) return one;
    const spellings = one.spellings.filter((text) => text !== spelling);
    return spellings.length ? { ...one, spellings } : [];
  });
}
