import { Decisions } from '../../decision/decisions';
import { factsAbout } from '../../decision/facts';
import type { Destination } from '../../destination/destination';
import { fieldOf } from '../../destination/destination';
import type { FieldValues } from '../../diff/record';
import { changesBetween, emptyDiff, type RecordsDiff } from '../../diff/records-diff';
import type { RouteDefinition } from '../../definition/route-definition';
import type { KnownRecords } from '../../identity/known-records';
import { finisherContext, submissionReader, withEarlierWrites } from '../planning/part-reader';
import type { PlannedWrite } from '../planning/plan';
import { planFields, valuesAfter, workOutFills } from '../planning/plan-fields';
import { takenKey } from '../planning/stop-reasons';
import type { Submission } from '../../payload/submission';

/**
 * What a route would fill now in the records that an earlier run of a submission wrote, and that is blank there: after a
 * mapping was repaired, so that nothing of what came meanwhile is lost. Nothing that stands there is changed, nothing is
 * created, linked or moved, and what somebody emptied since stays empty.
 *
 * @param writes What the earlier run wrote.
 * @param known The records as they are now, with those that `lookupsFor` asks for; those that are gone are left alone.
 */
export function planFillIn(
  route: RouteDefinition,
  submission: Submission,
  writes: readonly PlannedWrite[],
  known: KnownRecords,
  destination: Destination,
): RecordsDiff {
  const diff = emptyDiff();
  const written = new Map<string, FieldValues>();
  const facts = new Map<string, FieldValues>();
  const finishing = finisherContext(submission, destination);
  const { read } = new Decisions(
    route.decisions ?? [],
    { destination, writes: route.writes },
    {
      read: withEarlierWrites(submissionReader(submission, destination), written, facts),
      finishing,
      now: submission.receivedAt,
    },
  );
  for (const write of route.writes) {
    const earlier = writes.find(({ as, record: kind }) => as === write.as && kind === write.record);
    const record = earlier?.id ? known.get(earlier.id) : undefined;
    if (!record) continue;
    const fillable = { ...write, fills: write.fills.filter(({ field }) => fieldOf(destination, write.record, field)) };
    const filled = workOutFills(fillable, { submission, read, finishing, destination }).filter(({ hold }) => !hold);
    const fields = planFields(filled, record, { fillBlanks: true, leave: false, at: submission.receivedAt });
    const { values } = valuesAfter(write.record, record.values, fields);
    const changed = changesBetween(record.values, values);
    const taken = takenKey(write, record.id, values, known, destination) !== null;
    facts.set(write.as, factsAbout(write.record, record.id, known));
    written.set(write.as, taken ? record.values : values);
    if (!taken && Object.keys(changed).length) diff.changed[record.id] = { kind: record.kind, fields: changed };
  }
  return diff;
}
