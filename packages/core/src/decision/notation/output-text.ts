import type { OwnerRule } from '../../assignment/choose-owner';
import type { Destination } from '../../destination/destination';
import { optionFor } from '../../field/field-value';
import type { FieldOption } from '../../field/field-definition';
import { readMoney } from '../../reading/money';
import { isMoney } from '../../diff/record';
import { formatMoney } from '../../reading/money';
import type { OutputType } from '../decision-table';
import { didYouMean } from './nearest';
import { outputChoices } from './output-choices';
import { readOwner, showOwner } from './owner-text';

/** What an output says, or why it means nothing. `undefined`: nothing. */
export type ReadOutput = { ok: true; value: unknown } | { ok: false; text: string };

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
  'when-matched': 'way to treat who is known',
  again: 'way to treat a second enquiry',
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
  if (type === 'owner') {
    const rule = readOwner(text, destination);
    return rule
      ? { ok: true, value: rule }
      : {
          ok: false,
          text: `There is nobody called “${text}”: neither a person nor a team, such as North, in turn.${didYouMean(text.split(',')[0]!, labelsOf(type, destination))}`,
        };
  }
  const found = optionFor(outputChoices(type, destination), text);
  return found
    ? { ok: true, value: found.key }
    : {
        ok: false,
        text: `There is no ${TYPE_WORDS[type]} “${text}”.${didYouMean(text, labelsOf(type, destination))}`,
      };
}

function labelsOf(type: OutputType, destination: Destination): string[] {
  return outputChoices(type, destination).flatMap(({ label, retired }) => (retired ? [] : [label]));
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

/** The label, or the key where the label alone would lead to another. */
function nameOf(choices: readonly FieldOption[], key: string): string {
  const choice = choices.find((one) => one.key === key);
  return choice && optionFor(choices, choice.label)?.key === key ? choice.label : key;
}
