import { fieldOf, pipelineOf, stageOf, recordWord, recordWords, type Destination } from '../../destination/destination';
import { decidedInWords } from '../../decision/decision-in-words';
import { showFieldValue } from '../../field/field-value';
import type { FieldValue, RecordKind } from '../../diff/record';
import type { PlannedEffect } from '../../effect/effect';
import { sourceOf } from '../../channel/source-of';
import { capitalised, counted, listInWords, withArticle } from '../../text';
import type { FieldTrace, Plan, PlannedWrite } from '../planning/plan';
import type { Submission } from '../../payload/submission';
import { matchInWords, whyNothing } from './why';

/** One line of what happened, in plain words. A `value` line belongs to the step above it. */
export interface AccountStep {
  step:
    | 'arrived'
    | 'decided'
    | 'recognised'
    | 'created'
    | 'changed'
    | 'kept'
    | 'nothing'
    | 'value'
    | 'placed'
    | 'linked'
    | 'made'
    | 'sent'
    | 'answered'
    | 'source'
    | 'problem'
    | 'skipped'
    | 'failed'
    | 'held';
  text: string;
  before?: string;
  after?: string;
  /** Why a value is as it is, when it was not simply written. */
  note?: string;
  /** Whether it was not done after all, since the run failed or waits. */
  undone?: true;
  /** The record that the line is about. */
  record?: { kind: RecordKind; id: string };
  /** The decision table that the line is about, and the row that decided, from 0. */
  table?: { name: string; row: number | null };
}

const WHY_KEPT: Record<Exclude<FieldTrace['why'], null>, string> = {
  'unless-typed': 'kept: a person typed it',
  'if-blank': 'kept: written only if blank',
  never: 'kept: the route leaves it',
  'fill-blanks': 'kept: the route only fills blanks',
  later: 'kept: a later submission wrote it',
  unreadable: 'what came in does not fit',
  derived: 'follows from the other values',
  assigned: 'the route says whose it is',
  marked: 'the route adds it',
};

/** What a plan does, told in sentences; the same words for a run that was done and for a rehearsal. */
export function accountOf(
  plan: Plan,
  submission: Submission,
  names: { destination: Destination; intake: string },
): AccountStep[] {
  const steps: AccountStep[] = [{ step: 'arrived', text: arrivedText(submission, names.intake, names.destination) }];
  const isDone = plan.outcome === 'write';
  for (const decided of plan.decided ?? [])
    steps.push({
      step: 'decided',
      text: decidedInWords(decided, names.destination),
      table: { name: decided.table, row: decided.row },
    });
  for (const write of plan.writes)
    steps.push(...writeSteps(write, plan.writes, names.destination).map((step) => (isDone ? step : undone(step))));
  for (const effect of plan.effects ?? [])
    // What a run does that ends is done.
    steps.push(...effectSteps(effect).map((step) => (isDone || plan.outcome === 'skip' ? step : undone(step))));
  for (const text of plan.answered ?? []) steps.push({ step: 'answered', text });
  for (const { to, inDays } of plan.asks ?? [])
    steps.push({
      step: 'sent',
      text:
        inDays === undefined
          ? `Asked ${to} by mail`
          : `Asks ${to} by mail after ${counted(inDays, 'day')}, unless somebody answers`,
    });
  for (const problem of plan.problems) steps.push({ step: 'problem', text: problem.text });
  if (plan.touches.length) {
    const { source, channel, medium, campaign } = plan.touches[0]!;
    const details = [channel, medium, campaign && `campaign ${campaign}`].filter(Boolean).join(', ');
    steps.push({ step: 'source', text: `Recorded the source ${source}`, note: details });
  }
  if (plan.outcome === 'fail') steps.push({ step: 'failed', text: plan.reason!.text });
  if (plan.outcome === 'skip') steps.push({ step: 'skipped', text: plan.reason!.text });
  if (plan.outcome === 'hold') steps.push({ step: 'held', text: plan.reason!.text });
  return steps;
}

const DOING = new Set<AccountStep['step']>(['created', 'changed', 'placed', 'linked', 'made', 'sent']);

/** A line about what would have been done. */
function undone(step: AccountStep): AccountStep {
  if (!DOING.has(step.step)) return step;
  return { ...step, undone: true, text: `Would have ${step.text.charAt(0).toLowerCase()}${step.text.slice(1)}` };
}

/** The outcome of a plan in a few words, for a line in a table: `New deal, contact and company updated`. */
export function outcomeText(
  plan: Pick<Plan, 'outcome' | 'reason' | 'writes'>,
  words: Pick<Destination, 'dealWord'> = {},
): string {
  if (plan.outcome !== 'write') return plan.reason?.text ?? '';
  const made = plan.writes
    .filter(({ did }) => did === 'create')
    .map(({ record }) => `new ${recordWord(words, record)}`);
  const changed = plan.writes.filter(({ did }) => did === 'change').map(({ record }) => record);
  const kinds = [...new Set(changed)];
  const wordFor = (kind: RecordKind) =>
    changed.filter((one) => one === kind).length === 1 ? recordWord(words, kind) : recordWords(words, kind);
  if (kinds.length) made.push(`${listInWords(kinds.map(wordFor))} updated`);
  return capitalised(made.join(', ') || 'nothing new');
}

function arrivedText(submission: Submission, intake: string, destination: Destination): string {
  const { page } = submission.visit;
  const { source } = sourceOf(submission, destination);
  return page ? `Arrived at ${intake} from ${page}, source ${source}` : `Arrived at ${intake}, source ${source}`;
}

function writeSteps(write: PlannedWrite, all: readonly PlannedWrite[], destination: Destination): AccountStep[] {
  const record = write.id ? { kind: write.record, id: write.id } : undefined;
  const about = record ? { record } : {};
  const steps: AccountStep[] = [];
  const word = recordWord(destination, write.record);
  const matched = matchInWords(write, destination);
  if (matched && (write.match.by || (write.record === 'deal' && write.match.notEnough)))
    steps.push({ step: write.match.by ? 'recognised' : 'kept', text: withoutStop(matched), ...about });
  if (write.record !== 'deal')
    for (const text of write.match.notEnough ?? [])
      steps.push({ step: 'kept', text: `Not taken for one: ${text}`, ...about });
  const written = write.fields.filter(({ did }) => did === 'write' || did === 'clear');
  if (write.did === 'none') {
    steps.push({ step: 'nothing', text: `Wrote no ${word}: ${whyNothing(write, destination)}` });
    return write.fields.length ? [] : steps;
  }
  if (write.did === 'create')
    steps.push({ step: 'created', text: `Created ${withArticle(word)}${unrecognisedText(write)}`, ...about });
  else if (written.length)
    steps.push({
      step: 'changed',
      text: `Changed ${counted(written.length, 'value')} of the ${word}`,
      ...about,
    });
  else steps.push({ step: 'kept', text: `Nothing changes on the ${word}`, ...about });
  for (const field of write.fields) steps.push(...valueSteps(field, write, destination));
  if (write.place) steps.push({ step: 'placed', text: placedText(write.place, destination), ...about });
  if (write.linked.length)
    steps.push({
      step: 'linked',
      text: `Linked the ${word} to ${listInWords(write.linked.map((id) => linkedText(id, all, destination)))}`,
      ...about,
    });
  return steps;
}

/** What a follow-up makes or sends, or why it does nothing; what it changes on a record is told with the record. */
function effectSteps({ words, unmet, out, made, record }: PlannedEffect): AccountStep[] {
  const about = record ? { record } : {};
  if (unmet) return [{ step: 'nothing', text: `Follow-up ${words}: ${unmet}`, ...about }];
  const steps: AccountStep[] = [];
  if (made?.make === 'consent') steps.push({ step: 'made', text: `Noted: ${words}`, ...about });
  else if (made)
    steps.push({ step: 'made', text: `Made a ${words.charAt(0).toLowerCase()}${words.slice(1)}`, ...about });
  if (out) steps.push({ step: 'sent', text: `Put in the outbox: ${made ? `mail to ${out.to}` : words}`, ...about });
  return steps;
}

function linkedText(id: string, all: readonly PlannedWrite[], destination: Destination): string {
  const found = all.find((write) => write.id === id);
  return `the ${found ? recordWord(destination, found.record) : 'record'}`;
}

function withoutStop(sentence: string): string {
  return sentence.replace(/\.$/, '');
}

function unrecognisedText({ match, record }: PlannedWrite): string {
  return match.key && record !== 'deal' ? `: none has ${match.key}` : '';
}

function valueSteps(trace: FieldTrace, { record, did }: PlannedWrite, destination: Destination): AccountStep[] {
  if (trace.did === 'blank' || trace.did === 'same' || trace.why === 'derived') return [];
  const field = fieldOf(destination, record, trace.field);
  const show = (value: FieldValue | null) => showFieldValue(field, value);
  const line: AccountStep = {
    step: 'value',
    text: field?.label ?? trace.field,
    after: show(trace.after),
  };
  if (did !== 'create') line.before = show(trace.before);
  if (trace.why) line.note = trace.said ?? WHY_KEPT[trace.why];
  else if (trace.did === 'keep') return [];
  return [line];
}

/** Where a record stands after a run, and how it came there: `Moved to New builds, Design`. */
export function placedText(
  { pipeline: pipelineKey, stage: stageKey, did }: NonNullable<PlannedWrite['place']>,
  destination: Destination,
): string {
  const pipeline = pipelineOf(destination, pipelineKey);
  const place = `${pipeline?.name ?? pipelineKey}, ${stageOf(pipeline, stageKey)?.name ?? stageKey}`;
  switch (did) {
    case 'placed':
      return `Placed in ${place}`;
    case 'moved':
      return `Moved to ${place}`;
    case 'stays':
      return `Stays in ${place}`;
    case 'left':
      return `Left as it is in ${place}`;
  }
}
