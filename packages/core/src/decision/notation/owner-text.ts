import type { OwnerRule, TeamOwner } from '../../assignment/choose-owner';
import { MOST_SHARE } from '../../assignment/shares';
import type { Destination } from '../../destination/destination';
import type { FieldOption } from '../../field/field-definition';
import { outputChoices } from './output-choices';

/** What may stand after the name of a team, and what it means. */
const TEAM_WORDS: readonly [string, Partial<TeamOwner>][] = [
  ['in turn', {}],
  ['contact’s owner first', { keep: ['contact'] }],
  ['company’s owner first', { keep: ['company'] }],
  ['at work first', { atWork: true }],
  ['least loaded', { by: 'load' }],
  ['fewest tasks', { by: 'tasks' }],
  ['least value', { by: 'worth' }],
  ['with room', { capacity: true }],
  ['with room today', { perDay: true }],
  ['never twice in a row', { notTwice: true }],
];
const ELSE = 'else ';
const SPEAKS = 'speaks ';
const KNOWS = 'knows ';

/**
 * Whom a text names: a person, with a stand-in after `else`, or a team with how it takes turns.
 * @example readOwner('Builds North, contact’s owner first, else Robin Nye', destination)
 */
export function readOwner(text: string, destination: Destination): OwnerRule | null {
  const people = outputChoices('person', destination);
  const person = named(text, people);
  if (person) {
    const [standIn, ...more] = person.rest;
    if (standIn === undefined) return { person: person.key };
    const other = more.length ? null : elsePerson(standIn, people);
    return other === null ? null : { person: person.key, standIn: other };
  }
  const team = named(text, outputChoices('team', destination));
  if (!team) return null;
  const rule: TeamOwner = { team: team.key };
  for (const words of team.rest) {
    if (asksFor(words, rule)) continue;
    const found = TEAM_WORDS.find(([one]) => one === words.toLowerCase().replaceAll("'", '’'));
    const share = found ? null : shareIn(words, people);
    const otherwise = found || share ? null : elsePerson(words, people);
    if (!found && !share && !otherwise) return null;
    if (share) rule.shares = { ...rule.shares, ...share };
    if (otherwise) rule.otherwise = otherwise;
    const { keep, ...more } = found?.[1] ?? {};
    Object.assign(rule, more, keep ? { keep: [...(rule.keep ?? []), ...keep] } : {});
  }
  return rule;
}

/** The owner as it is typed. */
export function showOwner(rule: OwnerRule, destination: Destination): string {
  const person = (key: string) => nameOf(outputChoices('person', destination), key);
  if ('person' in rule) return [person(rule.person), ...(rule.standIn ? [ELSE + person(rule.standIn)] : [])].join(', ');
  if (!('team' in rule)) return JSON.stringify(rule);
  const { team, keep = [], atWork, by, capacity, perDay, notTwice, speaks, skills = [], shares = {}, otherwise } = rule;
  const how = [
    ...(speaks === undefined ? [] : [SPEAKS + speaks]),
    ...skills.map((skill) => KNOWS + skill),
    ...keep.map((kind) => `${kind}’s owner first`),
    ...(atWork ? ['at work first'] : []),
    ...(by === 'load' ? ['least loaded'] : []),
    ...(by === 'tasks' ? ['fewest tasks'] : []),
    ...(by === 'worth' ? ['least value'] : []),
    ...(capacity ? ['with room'] : []),
    ...(perDay ? ['with room today'] : []),
    ...(notTwice ? ['never twice in a row'] : []),
    ...Object.entries(shares).map(([key, share]) => `${person(key)} ${share}`),
  ];
  return [
    nameOf(outputChoices('team', destination), team),
    ...(how.length ? how : ['in turn']),
    ...(otherwise ? [ELSE + person(otherwise)] : []),
  ].join(', ');
}

/** The choice whose name a text begins with, the longest, and what stands after it between commas. */
function named(text: string, choices: readonly FieldOption[]): { key: string; rest: string[] } | null {
  const lower = text.toLowerCase();
  const fits = choices
    .filter(({ retired }) => !retired)
    .flatMap(({ key, label }) => [key, label].map((name) => ({ key, name: name.toLowerCase() })))
    .filter(({ name }) => lower === name || lower.startsWith(`${name},`))
    .sort((one, other) => other.name.length - one.name.length);
  const [best] = fits;
  if (!best) return null;
  const rest = text.slice(best.name.length + 1).trim();
  return { key: best.key, rest: rest === '' ? [] : rest.split(',').map((words) => words.trim()) };
}

/** Notes in a rule what a team's people must speak or know, where words ask for that. */
function asksFor(words: string, rule: TeamOwner): boolean {
  const lower = words.toLowerCase();
  const speaks = lower.startsWith(SPEAKS) ? words.slice(SPEAKS.length).trim() : '';
  const knows = lower.startsWith(KNOWS) ? words.slice(KNOWS.length).trim() : '';
  if (speaks) rule.speaks = speaks;
  if (knows) rule.skills = [...(rule.skills ?? []), knows];
  return speaks !== '' || knows !== '';
}

/** `Ida Vos 2`: two shares for her. */
function shareIn(words: string, people: readonly FieldOption[]): Record<string, number> | null {
  const at = words.lastIndexOf(' ');
  const share = words.slice(at + 1);
  if (at === -1 || !/^\d{1,3}$/.test(share) || Number(share) > MOST_SHARE) return null;
  const found = named(words.slice(0, at).trim(), people);
  return found && !found.rest.length ? { [found.key]: Number(share) } : null;
}

function elsePerson(words: string, people: readonly FieldOption[]): string | null {
  if (!words.toLowerCase().startsWith(ELSE)) return null;
  const found = named(words.slice(ELSE.length).trim(), people);
  return found && !found.rest.length ? found.key : null;
}

/** The label, or the key where the label alone would lead to another. */
function nameOf(choices: readonly FieldOption[], key: string): string {
  const label = choices.find((one) => one.key === key)?.label;
  return label !== undefined && named(label, choices)?.key === key ? label : key;
}
