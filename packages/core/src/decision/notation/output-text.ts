import type { OwnerRule } from '../../assignment/choose-owner';
import { fieldOf, type Destination } from '../../destination/destination';
import { optionFor } from '../../field/field-value';
import type { FieldOption } from '../../field/field-definition';
import { readMoney } from '../../reading/money';
import { isMoney } from '../../diff/record';
import { formatMoney } from '../../reading/money';
import type { OutputType } from '../decision-table';

/** What an output says, or why it means nothing. `undefined`: nothing. */
export type ReadOutput = { ok: true; value: unknown } | { ok: false; text: string };

/** What can be said by name in the outputs of a type; empty where anything can. */
export function outputChoices(type: OutputType, destination: Destination): FieldOption[] {
  const people = fieldOf(destination, 'contact', 'owner')?.options ?? [];
  const teams = Object.entries(destination.teams ?? {}).map(([key, { name }]) => ({ key, label: name }));
  switch (type) {
    case 'pipeline':
      return destination.pipelines.map(({ key, name }) => ({ key, label: name }));
    case 'stage': {
      const stages = destination.pipelines.flatMap((pipeline) => pipeline.stages);
      return [...new Map(stages.map(({ key, name }) => [key, { key, label: name }])).values()];
    }
    case 'person':
      return people;
    case 'team':
      return teams;
    case 'owner':
      return [...people, ...teams];
    case 'tag':
      return fieldOf(destination, 'contact', 'tags')?.options ?? [];
    case 'list':
      return fieldOf(destination, 'contact', 'lists')?.options ?? [];
    case 'text':
    case 'number':
    case 'yes-no':
      return [];
  }
}

const TYPE_WORDS: Readonly<Record<OutputType, string>> = {
  text: 'text',
  pipeline: 'pipeline',
  stage: 'stage',
  owner: 'person or team',
  person: 'person',
  team: 'team',
  tag: 'tag',
  list: 'list',
  number: 'number',
  'yes-no': 'yes or no',
};

/** An output that could not be read, as it was typed; kept until somebody mends it. */
export function unreadOutput(typed: string): { unread: string } {
  return { unread: typed };
}

export function isUnread(value: unknown): value is { unread: string } {
  return typeof value === 'object' && value !== null && 'unread' in value;
}

/** Reads what was typed into a cell of an output. */
export function readOutput(typed: string, type: OutputType, destination: Destination): ReadOutput {
  const text = typed.trim();
  if (text.length > 1_000) return { ok: false, text: 'An output takes at most 1,000 characters.' };
  if (text === '') return { ok: true, value: undefined };
  if (type === 'text') return { ok: true, value: text };
  if (type === 'number') return readNumber(text, destination);
  if (type === 'yes-no') {
    const word = text.toLowerCase();
    return word === 'yes' || word === 'no'
      ? { ok: true, value: word === 'yes' }
      : { ok: false, text: 'Type yes or no.' };
  }
  if (type === 'owner') return readOwner(text, destination);
  const found = optionFor(outputChoices(type, destination), text);
  return found ? { ok: true, value: found.key } : { ok: false, text: `There is no ${TYPE_WORDS[type]} “${text}”.` };
}

/** An output as it is typed. */
export function showOutput(value: unknown, type: OutputType, destination: Destination): string {
  if (value === undefined || value === null) return '';
  if (isUnread(value)) return value.unread;
  if (type === 'yes-no') return value === true ? 'yes' : value === false ? 'no' : String(value);
  if (type === 'number') return isMoney(value) ? formatMoney(value) : String(value);
  if (type === 'owner') return showOwner(value as OwnerRule, destination);
  return nameOf(outputChoices(type, destination), String(value));
}

function readNumber(text: string, { defaultCurrency }: Destination): ReadOutput {
  const plain = /^-?\d+(\.\d+)?$/.exec(text);
  if (plain) return { ok: true, value: Number(text) };
  const money = readMoney(text, defaultCurrency);
  return money ? { ok: true, value: money } : { ok: false, text: 'Type a number, or an amount such as GBP 1,200.' };
}

function readOwner(text: string, destination: Destination): ReadOutput {
  const bare = text.replace(/,? in turn$/i, '');
  const team = bare === text ? optionFor(outputChoices('person', destination), text) : undefined;
  if (team) return { ok: true, value: { person: team.key } satisfies OwnerRule };
  const found = optionFor(outputChoices('team', destination), bare);
  return found
    ? { ok: true, value: { team: found.key } satisfies OwnerRule }
    : { ok: false, text: `There is nobody called “${text}”: neither a person nor a team.` };
}

function showOwner(rule: OwnerRule, destination: Destination): string {
  if ('person' in rule) return nameOf(outputChoices('person', destination), rule.person);
  if ('team' in rule) return `${nameOf(outputChoices('team', destination), rule.team)}, in turn`;
  return JSON.stringify(rule);
}

/** The label, or the key where the label alone would lead to another. */
function nameOf(choices: readonly FieldOption[], key: string): string {
  const choice = choices.find((one) => one.key === key);
  return choice && optionFor(choices, choice.label)?.key === key ? choice.label : key;
}
