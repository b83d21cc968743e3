import { fieldOf, pipelineOf, recordWord, stageOf, type Destination } from '../../destination/destination';
import { describeCondition } from '../../condition/describe-condition';
import { tableInWords } from '../../decision/decision-in-words';
import { holdRuleOf } from '../../hold/registry';
import { ownerInWords } from '../../effect/owner-in-words';
import { effectOf } from '../../effect/registry';
import { counted, listInWords } from '../../text';
import type { Value } from '../../value/value';
import { fixedText } from '../../definition/fixed-text';
import type {
  Condition,
  MatchRule,
  Place,
  RouteDefinition,
  WhenMatched,
  Write,
} from '../../definition/route-definition';
import { recognitionOf } from '../checking/recognition';
import { partLabel } from '../editing/route-conditions';

/** A route told in sentences: one for the list, and one for each section of the route sheet. */
export interface RouteInWords {
  /** `Site survey request → contact, company, deal in New builds, Enquiry` */
  sentence: string;
  takesFrom: string;
  onlyWhen: string;
  mapping: string;
  recognise: string;
  place: string;
  decide: string;
  followUp: string;
}

/** What the things are called that a route names by key. */
export interface RouteNames {
  destination: Destination;
  intakes: readonly { key: string; name: string }[];
}

function againInWords(again: Place['again'], word: string): string {
  switch (again) {
    case 'update':
      return `a second enquiry updates the open ${word}`;
    case 'new':
      return `a second enquiry makes another ${word}`;
    case 'new-if-closed':
      return `a second enquiry leaves an open ${word} as it is`;
    case 'leave':
      return `a second enquiry leaves any ${word} as it is`;
  }
}

function withinInWords({ place, record }: Write, destination: Destination): string {
  const days = place?.within === undefined ? '' : ` of the last ${counted(place.within, 'day')}`;
  return place?.sameField === undefined
    ? days
    : `${days} with the same ${fieldLabel(destination, record, place.sameField)}`;
}

export function describeRoute(route: RouteDefinition, names: RouteNames): RouteInWords {
  const intakes = listInWords(route.from.map((key) => names.intakes.find((intake) => intake.key === key)?.name ?? key));
  const placed = route.writes.find(({ place }) => place);
  const place = placed?.place ? placeInWords(placed.place, names.destination) : null;
  return {
    sentence: `${intakes || 'No intake'} → ${
      listInWords(
        route.writes.map(({ record, place: at }) => {
          const word = recordWord(names.destination, record);
          return at && place ? `${word} in ${place}` : word;
        }),
      ) || 'nothing'
    }`,
    takesFrom: intakes || 'no intake yet',
    onlyWhen: route.onlyWhen ? conditionInWords(route.onlyWhen, route, names.destination) : 'everything that arrives',
    mapping: mappingInWords(route, names.destination),
    recognise:
      listInWords(route.writes.filter(({ record }) => record !== 'deal').map(recogniseInWords)) ||
      'nothing to recognise',
    place: placed ? placingInWords(placed, names.destination) : 'in no pipeline',
    decide: listInWords((route.decisions ?? []).map(tableInWords)) || 'nothing by tables',
    followUp: followUpInWords(route, names.destination),
  };
}

/** Where a write places its record and what a second enquiry does: `New builds, Enquiry; a second enquiry updates the open deal`. */
export function placingInWords(write: Write, destination: Destination): string {
  const { place, record } = write;
  if (!place) return 'in no pipeline';
  const again = againInWords(place.again, recordWord(destination, record));
  return `${placeInWords(place, destination)}; ${again}${withinInWords(write, destination)}${place.backwards ? ', also backwards' : ''}`;
}

/** A condition of a route as one sentence without a full stop. */
export function conditionInWords(condition: Condition, route: RouteDefinition, destination: Destination): string {
  return describeCondition(condition, (part) => ({ label: partLabel(part, route, destination) }));
}

/** What each follow-up does, as a clause: `the contact is tagged Show, only when Country is “NL”`. */
export function effectsInWords(route: RouteDefinition, destination: Destination): string[] {
  return (route.followUps ?? []).flatMap((followUp) => {
    const does = effectOf(followUp)?.describe(followUp, { route, destination });
    if (!does) return [];
    return followUp.when ? `${does}, only when ${conditionInWords(followUp.when, route, destination)}` : does;
  });
}

/** Who is asked before anything is written, as clauses. */
export function holdsInWords(route: RouteDefinition, destination: Destination): string[] {
  return (route.holds ?? []).flatMap((hold) => {
    const asked = holdRuleOf(hold)?.describe(hold, { destination });
    if (!asked) return [];
    return hold.when ? `${asked}, only when ${conditionInWords(hold.when, route, destination)}` : asked;
  });
}

function followUpInWords(route: RouteDefinition, destination: Destination): string {
  const owners = route.writes.flatMap(({ owner, record }) =>
    owner ? [`the ${recordWord(destination, record)} goes to ${ownerInWords(owner, record, destination)}`] : [],
  );
  return (
    listInWords([...holdsInWords(route, destination), ...owners, ...effectsInWords(route, destination)]) ||
    'nothing more'
  );
}

function mappingInWords(route: RouteDefinition, destination: Destination): string {
  const fed = route.writes.reduce((count, { fills }) => count + fills.length, 0);
  const unfed = route.writes.flatMap((write) => requiredUnfed(write, destination)).length;
  return `${counted(fed, 'field')} fed${unfed ? `, ${counted(unfed, 'required field')} ${unfed === 1 ? 'is' : 'are'} not` : ''}`;
}

/** The required fields of a write's record that nothing feeds, by key. */
export function requiredUnfed(write: Write, destination: Destination): string[] {
  const fed = new Set(write.fills.map(({ field }) => field));
  return destination.fields
    .filter(({ record, required, kept, key }) => record === write.record && required && !kept && !fed.has(key))
    .map(({ key }) => key);
}

function recogniseInWords(write: Write): string {
  const { rules, openOnly } = recognitionOf(write);
  const by = listInWords(
    rules.map((rule) => RULE_WORDS[rule.by]),
    'then',
  );
  if (!by) return `every ${write.record} is new`;
  const decided = write.decided?.whenMatched;
  return `${openOnly ? 'open ' : ''}${write.record} by ${by}${decided ? `, and what then the table ${decided.decision} says` : THEN_WORDS[write.whenMatched ?? 'update']}`;
}

/** What a match rule goes by, as a sentence names it. */
export const RULE_WORDS: Readonly<Record<MatchRule['by'], string>> = {
  email: 'e-mail',
  phone: 'phone',
  domain: 'domain',
  'external-id': 'id elsewhere',
  name: 'name',
  likeness: 'likeness',
};

const THEN_WORDS: Readonly<Record<WhenMatched, string>> = {
  update: '',
  'fill-blanks': ', only blanks filled',
  leave: ', left as it is',
  skip: ', nothing written',
  ask: ', asking',
};

function placeInWords(place: Place, destination: Destination): string {
  const pipelineKey = fixedText(place.pipeline);
  const stageKey = fixedText(place.stage);
  const pipeline = pipelineKey === null ? undefined : pipelineOf(destination, pipelineKey);
  const stage = stageKey === null ? undefined : stageOf(pipeline, stageKey);
  return `${pipeline?.name ?? pipelineKey ?? chosenBy(place.pipeline, 'pipeline')}, ${stage?.name ?? stageKey ?? chosenBy(place.stage, 'stage')}`;
}

/** What is said of a place that is not fixed. */
function chosenBy({ parts }: Value, what: string): string {
  const table = parts.find((part) => 'decision' in part);
  return `a ${what} chosen by ${table && 'decision' in table ? `the table ${table.decision}` : 'the answers'}`;
}

/** The name that people read for a field of a record. */
export function fieldLabel(destination: Destination, record: Write['record'], key: string): string {
  return fieldOf(destination, record, key)?.label ?? key;
}
