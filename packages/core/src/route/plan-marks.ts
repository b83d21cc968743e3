import { chooseOwner, namedOwner, type OwnerRule } from '../assignment/choose-owner';
import { fieldOf, type Destination } from '../destination/destination';
import type { FieldValues, RecordKind } from '../diff/record';
import { warning, type Problem } from '../problem';
import { listInWords } from '../text';
import type { FollowUp, Write } from './definition';
import type { FieldTrace } from './plan';
import type { Submission } from './submission';

/** What a route adds to a record beside its fills: an owner where there is none, tags and lists besides those it has. */
export interface PlannedMarks {
  values: FieldValues;
  fields: FieldTrace[];
  problems: Problem[];
}

/** Works out the marks of one write. What is gone since the route was published is left out, and said. */
export function plannedMarks(
  write: Write,
  followUps: readonly FollowUp[],
  values: FieldValues,
  submission: Pick<Submission, 'id' | 'visit'>,
  destination: Destination,
): PlannedMarks {
  const marks: PlannedMarks = { values: {}, fields: [], problems: [] };
  const add = (field: string, after: string | string[], why: 'assigned' | 'marked') => {
    marks.values[field] = after;
    marks.fields.push({ field, before: values[field] ?? null, after, offered: null, did: 'write', why, trace: null });
  };
  if (write.owner && values.owner === undefined) {
    const owner = chooseOwner(write.owner, write.record, submission, destination);
    if (owner) add('owner', owner, 'assigned');
    else marks.problems.push(warning('no-owner', noOwner(write.owner, write.record)));
  }
  for (const [field, wanted] of Object.entries(wantedMarks(write, followUps))) {
    const known = new Set(fieldOf(destination, write.record, field)?.options?.map(({ key }) => key));
    const gone = wanted.filter((key) => !known.has(key));
    if (gone.length)
      marks.problems.push(
        warning('unknown-mark', `The route adds the ${field} ${listInWords(gone)}, which do not exist any more.`),
      );
    const before = Array.isArray(values[field]) ? values[field] : [];
    const after = [...new Set([...before, ...wanted.filter((key) => known.has(key))])];
    if (after.length > before.length) add(field, after, 'marked');
  }
  return marks;
}

function wantedMarks({ as }: Write, followUps: readonly FollowUp[]): Record<'tags' | 'lists', string[]> {
  const own = followUps.filter((one) => 'on' in one && one.on === as);
  return {
    tags: own.flatMap((one) => (one.do === 'tag' ? one.tags : [])),
    lists: own.flatMap((one) => (one.do === 'list' ? one.lists : [])),
  };
}

function noOwner(rule: OwnerRule, record: RecordKind): string {
  const named = namedOwner(rule);
  if (!named) return `The ${record} has no owner: no colleague entered it.`;
  const whom = 'person' in named ? `the person “${named.person}”` : `the team “${named.team}”`;
  return `The ${record} has no owner: ${whom} is gone, or nobody there is active.`;
}
