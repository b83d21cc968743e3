import { fieldOf, recordWord, type Destination } from '../../destination/destination';
import { showRecordValue } from '../../destination/show-record-value';
import { sameValue, type FieldValue } from '../../diff/record';
import { saidInWords } from '../../decision/decision-in-words';
import { orderedJson, sameJson, type JsonValue } from '../../json';
import { capitalised } from '../../text';
import { placedText } from '../telling/account';
import type { FieldTrace, Plan, PlannedWrite } from '../planning/plan';

/** One way in which two plans for the same submission differ. */
export interface PlanDifference {
  /** What differences of the same kind have in common, for grouping. */
  kind: string;
  /** The kind in words: `The contact’s Phone is another`. */
  text: string;
  /** What the one and the other plan have; `''` is blank. */
  before: string;
  after: string;
}

const OUTCOMES: Record<Plan['outcome'], string> = { write: 'written', hold: 'held', skip: 'left out', fail: 'failed' };

/**
 * How two plans for the same submission differ in what becomes of it: the outcome, which records are made or recognised,
 * what their fields are to hold, where they stand, and what they are linked to. Ids of new records do not count.
 */
export function comparePlans(before: Plan, after: Plan, destination: Destination): PlanDifference[] {
  return [...compareDecided(before, after, destination), ...compareWhatIsDone(before, after, destination)];
}

/** What tables of the same name say, where that differs. */
function compareDecided(before: Plan, after: Plan, destination: Destination): PlanDifference[] {
  return (after.decided ?? []).flatMap((now) => {
    const was = before.decided?.find(({ table }) => table === now.table);
    if (!was || sameJson(was.said as unknown as JsonValue, now.said as unknown as JsonValue)) return [];
    return [
      {
        kind: `decided ${now.table}`,
        text: `The table ${now.table} says something else`,
        before: saidInWords(was, destination),
        after: saidInWords(now, destination),
      },
    ];
  });
}

function compareWhatIsDone(before: Plan, after: Plan, destination: Destination): PlanDifference[] {
  if (before.outcome !== after.outcome)
    return [
      {
        kind: `outcome ${before.outcome} ${after.outcome}`,
        text: `${capitalised(OUTCOMES[before.outcome])} before, ${OUTCOMES[after.outcome]} now`,
        before: before.reason?.text ?? OUTCOMES[before.outcome],
        after: after.reason?.text ?? OUTCOMES[after.outcome],
      },
    ];
  if (after.outcome !== 'write') {
    const [one, other] = [before.reason?.code ?? '', after.reason?.code ?? ''];
    return one === other
      ? []
      : [
          {
            kind: `reason ${one} ${other}`,
            text: `${capitalised(OUTCOMES[after.outcome])} for another reason`,
            before: before.reason?.text ?? '',
            after: after.reason?.text ?? '',
          },
        ];
  }
  const names = [...new Set([...before.writes, ...after.writes].map(({ as }) => as))];
  const differences = names.flatMap((as) =>
    compareWrites(
      before.writes.find((write) => write.as === as),
      after.writes.find((write) => write.as === as),
      { before, after, destination },
    ),
  );
  return [...differences, ...compareEffects(before, after)];
}

/** How what is made and sent differs: by what it is and where to, and then by what it says. */
function compareEffects(before: Plan, after: Plan): PlanDifference[] {
  const [was, is] = [doneBy(before), doneBy(after)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((key) => {
    const [one, other] = [was.get(key), is.get(key)];
    const { words, isSent } = (other ?? one)!;
    if (!one)
      return [
        {
          kind: `added ${key}`,
          text: `${words}, which was not ${isSent ? 'sent' : 'made'} before`,
          before: '',
          after: words,
        },
      ];
    if (!other)
      return [
        {
          kind: `dropped ${key}`,
          text: `${words} is not ${isSent ? 'sent' : 'made'} any more`,
          before: words,
          after: '',
        },
      ];
    return one.says === other.says
      ? []
      : [{ kind: `says ${key}`, text: `${words} says something else`, before: one.says, after: other.says }];
  });
}

interface DoneEffect {
  words: string;
  says: string;
  isSent: boolean;
}

/** What a plan makes and sends, each under its kind, where it goes and its number among those. New records count as one another. */
function doneBy({ effects = [], writes }: Plan): Map<string, DoneEffect> {
  const found = new Map<string, DoneEffect>();
  const add = (key: string, words: string, said: JsonValue, isSent: boolean) => {
    let says = orderedJson(said);
    for (const { id, as, did } of writes) if (id && did === 'create') says = says.replaceAll(id, `new ${as}`);
    let number = 1;
    while (found.has(`${key} ${number}`)) number += 1;
    found.set(`${key} ${number}`, { words, says, isSent });
  };
  for (const { out, made, words, record } of effects) {
    const about = writes.find(({ id }) => id === record?.id)?.as ?? '';
    if (made) add(`${made.make} ${about}`, words, made as unknown as JsonValue, false);
    if (out) add(`${out.kind} ${out.to}`, made ? `Mail to ${out.to}` : words, out.body ?? null, true);
  }
  return found;
}

interface Both {
  before: Plan;
  after: Plan;
  destination: Destination;
}

function compareWrites(one: PlannedWrite | undefined, other: PlannedWrite | undefined, both: Both): PlanDifference[] {
  const { record, as } = (other ?? one)!;
  const word = recordWord(both.destination, record);
  const [did, does] = [one?.did ?? 'none', other?.did ?? 'none'];
  const made = (how: string) => how === 'create';
  if (!one || !other || (did === 'none') !== (does === 'none')) {
    if (did === does) return [];
    const text = does === 'none' ? `No ${word} is written any more` : `A ${word} is written too`;
    return [
      { kind: `${as} ${did === 'none' ? 'added' : 'dropped'}`, text, before: didInWords(did), after: didInWords(does) },
    ];
  }
  const found: PlanDifference[] = [];
  if (made(did) !== made(does) || (!made(did) && one.id !== other.id))
    found.push({
      kind: `${as} match`,
      text: `Another ${word} is recognised`,
      before: matchInWords(one),
      after: matchInWords(other),
    });
  const fields = [...new Set([...one.fields, ...other.fields].map(({ field }) => field))];
  for (const field of fields) {
    const [was, is] = [wantedIn(one, field), wantedIn(other, field)];
    if (sameValue(was, is)) continue;
    const definition = fieldOf(both.destination, record, field);
    found.push({
      kind: `${as} field ${field}`,
      text: `The ${word}’s ${definition?.label ?? field} is another`,
      before: showRecordValue(both.destination, record, field, was),
      after: showRecordValue(both.destination, record, field, is),
    });
  }
  const place = (write: PlannedWrite) => (write.place ? placedText(write.place, both.destination) : '');
  const [stood, stands] = [place(one), place(other)];
  if (stood !== stands)
    found.push({ kind: `${as} place`, text: `The ${word} stands elsewhere`, before: stood, after: stands });
  const [linked, links] = [
    linksInWords(one, both.before, both.destination),
    linksInWords(other, both.after, both.destination),
  ];
  if (linked !== links)
    found.push({ kind: `${as} links`, text: `The ${word} is linked otherwise`, before: linked, after: links });
  return found;
}

/** What a plan wants a field to hold, also where something keeps it from being written. */
function wantedIn({ fields }: PlannedWrite, field: string): FieldValue | null {
  const trace: FieldTrace | undefined = fields.find((one) => one.field === field);
  return trace ? (trace.offered ?? trace.after) : null;
}

function didInWords(did: PlannedWrite['did']): string {
  return { create: 'created', change: 'changed', keep: 'kept', none: 'not written' }[did];
}

function matchInWords({ did, match }: PlannedWrite): string {
  return did === 'create' ? 'a new one' : match.key ? `the one with ${match.key}` : 'one that is there';
}

function linksInWords({ linked }: PlannedWrite, plan: Plan, destination: Destination): string {
  return linked
    .map((id) => {
      const write = plan.writes.find((one) => one.id === id);
      return write ? recordWord(destination, write.record) : 'another record';
    })
    .sort()
    .join(', ');
}
