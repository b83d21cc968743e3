import { z } from '../../schema-library';
import { fieldOf, recordWord } from '../../destination/destination';
import { optionFor } from '../../field/field-value';
import type { FieldDefinition } from '../../field/field-definition';
import type { FollowUp } from '../../definition/route-definition';
import type { Value } from '../../value/value';
import { fixedText } from '../../definition/fixed-text';
import { warning } from '../../problem';
import { listInWords } from '../../text';
import { condition, name, value } from '../../definition/shapes';
import { defineEffect, type EffectKind, type EffectSurroundings } from '../effect';

interface MarkFollowUp extends FollowUp {
  on: string;
  add?: Value[];
  remove?: Value[];
}

const MOST = 50;
const PLACES = ['add', 'remove'] as const;

/** What adds marks of one field to a record and takes them off: tags, or lists. */
export function markEffect(of: {
  do: 'tag' | 'list';
  field: 'tags' | 'lists';
  label: string;
  description: string;
  /** `is tagged`, and `loses the tag`. */
  words: { add: string; remove: string; many: string };
  onlyContacts: boolean;
}): EffectKind {
  const { field } = of;
  const keys = z.array(name).min(1).max(MOST);
  const values = z.array(value).min(1).max(MOST);
  const common = { do: z.literal(of.do), on: name, when: condition.optional() };
  /** `{tags: ['show']}` is the short form of adding fixed ones. */
  const shape = z.union([
    z.strictObject({ ...common, [field]: keys }),
    z
      .strictObject({ ...common, add: values.optional(), remove: values.optional() })
      .refine(({ add, remove }) => add || remove, `say which ${of.words.many} to add or to remove`),
  ]) as unknown as z.ZodType<MarkFollowUp>;

  const wanted = (settings: MarkFollowUp, place: 'add' | 'remove') => wantedIn(settings, place, field);
  const way = (settings: MarkFollowUp, place: 'add' | 'remove', index: number) =>
    settings[field] ? [field, index] : [place, index, 'parts', 0, 'text'];
  const definition = ({ on }: MarkFollowUp, { route, destination }: EffectSurroundings) => {
    const write = route.writes.find(({ as }) => as === on);
    return write && { write, options: fieldOf(destination, write.record, field)?.options ?? [] };
  };
  const named = (options: NonNullable<FieldDefinition['options']>, one: Value) => {
    const text = fixedText(one);
    if (!one.parts.length) return 'nothing yet';
    return text === null ? 'what was answered' : (options.find(({ key }) => key === text)?.label ?? text);
  };

  return defineEffect<MarkFollowUp>({
    do: of.do,
    label: of.label,
    description: of.description,
    shape,
    example: {
      settings: { do: of.do, on: 'person', add: [{ parts: [{ text: 'show' }] }] },
      words: `the contact ${of.words.add} Show`,
    },
    withValues: (settings, change) =>
      settings[field]
        ? settings
        : {
            ...settings,
            ...Object.fromEntries(
              PLACES.flatMap((place) => {
                const there = settings[place];
                return there ? [[place, there.map((one, index) => change(one, [place, index]))]] : [];
              }),
            ),
          },
    check(settings, around) {
      const found = definition(settings, around);
      if (!found) return [];
      if (of.onlyContacts && found.write.record !== 'contact')
        return [
          {
            code: 'list-does-not-fit' as const,
            text: 'Lists are of contacts, so only a contact can be put in one.',
            way: ['on'],
          },
        ];
      return PLACES.flatMap((place) =>
        wanted(settings, place).flatMap((one, index) => {
          const text = fixedText(one);
          const isThere =
            text === null || !one.parts.length || found.options.some(({ key, retired }) => key === text && !retired);
          return isThere
            ? []
            : [
                {
                  code: `unknown-${of.do}` as const,
                  text: `There is no ${of.do} “${text}”.`,
                  way: way(settings, place, index),
                },
              ];
        }),
      );
    },
    describe(settings, around) {
      const found = definition(settings, around);
      const word = found ? recordWord(around.destination, found.write.record) : settings.on;
      const say = (place: 'add' | 'remove') => {
        const all = wanted(settings, place).map((one) => named(found?.options ?? [], one));
        return all.length ? [`${of.words[place]} ${listInWords(all)}`] : [];
      };
      return `the ${word} ${listInWords([...say('add'), ...say('remove')])}`;
    },
    plan(settings, { record, destination, workOut }) {
      if (!record) return { words: of.label };
      const options = fieldOf(destination, record.kind, field)?.options ?? [];
      const unknown: string[] = [];
      const problems = [];
      const keysOf = (place: 'add' | 'remove') => {
        const keys: string[] = [];
        for (const one of wanted(settings, place)) {
          const worked = workOut(one);
          problems.push(...worked.problems);
          for (const text of worked.text.split('\n').filter((line) => line.trim())) {
            const option = optionFor(options, text);
            if (option) keys.push(option.key);
            else unknown.push(text);
          }
        }
        return keys;
      };
      const before = Array.isArray(record.values[field]) ? record.values[field] : [];
      const added = keysOf('add');
      const removed = new Set(keysOf('remove'));
      const after = [...new Set([...before, ...added])].filter((key) => !removed.has(key));
      if (unknown.length)
        problems.push(
          warning('unknown-mark', `The route names the ${of.words.many} ${listInWords(unknown)}, which do not exist.`),
        );
      const same = after.length === before.length && after.every((key, index) => key === before[index]);
      return {
        words: `${of.label} of the ${recordWord(destination, record.kind)}`,
        problems,
        ...(same ? {} : { changes: { [field]: after.length ? after : null } }),
      };
    },
    adopt: (settings, adopt) => {
      const short = settings[field] as string[] | undefined;
      if (short) return { ...settings, [field]: short.map((key) => adopt(field, key)) };
      const adopted = (one: Value): Value => {
        const text = fixedText(one);
        return text === null ? one : { ...one, parts: [{ text: adopt(field, text) }] };
      };
      return {
        ...settings,
        ...Object.fromEntries(
          PLACES.flatMap((place) => (settings[place] ? [[place, settings[place].map(adopted)]] : [])),
        ),
      };
    },
  });
}

function wantedIn(settings: FollowUp, place: 'add' | 'remove', field: 'tags' | 'lists'): Value[] {
  const short = place === 'add' ? (settings[field] as string[] | undefined) : undefined;
  return short?.map((key) => ({ parts: [{ text: key }] })) ?? (settings[place] as Value[] | undefined) ?? [];
}

/** The tags, or lists, that follow-ups add whatever was sent; those under a condition are left out. */
export function alwaysAdded(followUps: readonly FollowUp[], of: 'tag' | 'list', on?: string): string[] {
  return followUps
    .filter((one) => one.do === of && !one.when && (on === undefined || one.on === on))
    .flatMap((one) => wantedIn(one, 'add', of === 'tag' ? 'tags' : 'lists').flatMap((value) => fixedText(value) ?? []));
}
