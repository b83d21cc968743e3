import { fieldOf, pipelineOf, recordWord, stageOf, type Destination } from '../../destination/destination';
import { jsonPointer } from '../../json';
import { error, type Problem } from '../../problem';
import { listInWords } from '../../text';
import type { Place, Write } from '../../definition/route-definition';
import { fixedText } from '../../definition/fixed-text';

/** What is wrong with where a write places its record. */
export function checkPlace(write: Write, w: number, destination: Destination): Problem[] {
  const way = ['writes', w, 'place'];
  const placed = write.record === 'deal' || write.record === 'lead';
  if (!write.place) {
    return write.record === 'deal'
      ? [
          error(
            'no-place',
            `The ${recordWord(destination, 'deal')} has no place: choose a pipeline and a stage.`,
            jsonPointer(['writes', w]),
          ),
        ]
      : [];
  }
  if (!placed) return [error('place-does-not-fit', `A ${write.record} is in no pipeline.`, jsonPointer(way))];
  return [...checkStage(write.place, write.record, destination, way), ...checkKept(write, destination, way)];
}

/** Which deal counts as the one to keep. */
function checkKept({ record, place, fills }: Write, destination: Destination, way: (string | number)[]): Problem[] {
  const { sameField } = place!;
  if (sameField === undefined) return [];
  const at = jsonPointer([...way, 'sameField']);
  const field = fieldOf(destination, record, sameField);
  if (!field) return [error('unknown-field', `A ${record} has no field “${sameField}”.`, at)];
  if (fills.some((fill) => fill.field === sameField)) return [];
  return [error('match-unfed', `Nothing feeds ${field.label}, so no two can have the same.`, at)];
}

function checkStage(
  place: Place,
  record: Write['record'],
  destination: Destination,
  way: (string | number)[],
): Problem[] {
  const pipelineKey = fixedText(place.pipeline);
  if (pipelineKey === null) return [];
  const pipeline = pipelineOf(destination, pipelineKey);
  if (!pipeline || pipeline.record !== record) {
    return [
      error(
        'unknown-pipeline',
        `There is no pipeline for ${record}s with the key “${pipelineKey}”.`,
        jsonPointer([...way, 'pipeline']),
      ),
    ];
  }
  const stageKey = fixedText(place.stage);
  if (stageKey === null || stageOf(pipeline, stageKey)) return [];
  const known = listInWords(
    pipeline.stages.map(({ key }) => key),
    'or',
  );
  return [
    error(
      'unknown-stage',
      `The pipeline ${pipeline.name} has no stage “${stageKey}”. Choose ${known}.`,
      jsonPointer([...way, 'stage']),
    ),
  ];
}
