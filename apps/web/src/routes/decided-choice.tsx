import type { DecidedOwner, OutputType, Write } from '@haycart/core';
import { useTables } from './draft';

/** The outputs of some type that the tables of the route have. */
export function useDecided(): (type: OutputType) => DecidedOwner[] {
  const tables = useTables();
  return (type) =>
    tables.flatMap(({ name, outputs }) =>
      outputs.filter((output) => output.type === type).map((output) => ({ decision: name, output: output.name })),
    );
}

/** An output as the value of a choice. */
export function decidedKey({ decision, output }: DecidedOwner): string {
  return JSON.stringify([decision, output]);
}

/** The output that a choice stands for; `null` for any other choice. */
export function decidedIn(key: string): DecidedOwner | null {
  if (!key.startsWith('[')) return null;
  const [decision, output] = JSON.parse(key) as [string, string];
  return { decision, output };
}

/** Outputs of tables as choices, after those that are there anyway. */
export function DecidedChoices({ deciding }: { deciding: readonly DecidedOwner[] }) {
  if (!deciding.length) return null;
  return (
    <optgroup label="What a table says">
      {deciding.map((one) => (
        <option key={decidedKey(one)} value={decidedKey(one)}>
          {one.decision}: {one.output}
        </option>
      ))}
    </optgroup>
  );
}

/** A write with what a table says of it, or without it. */
export function withDecided(write: Write, key: 'whenMatched' | 'again', output: DecidedOwner | null): Write {
  const { decided = {}, ...rest } = write;
  const { [key]: _, ...others } = decided;
  const next = output ? { ...others, [key]: output } : others;
  return Object.keys(next).length ? { ...rest, decided: next } : rest;
}
