import type { FieldValue, FieldValues, RecordKind } from '../diff/record';
import { fieldOf, pipelineOf, stageOf, type Destination } from './destination';
import { showFieldValue } from '../field/field-value';

/**
 * A value of a record as people read it, `''` for a blank: options, pipelines and stages by their names. Stages of several
 * pipelines may share a key: `values`, those of the record, tell which pipeline is meant.
 */
export function showRecordValue(
  destination: Destination,
  kind: RecordKind,
  field: string,
  value: FieldValue | null,
  values: FieldValues = {},
): string {
  const placed = kind === 'deal' || kind === 'lead';
  if (placed && typeof value === 'string') {
    if (field === 'pipeline') return pipelineOf(destination, value)?.name ?? value;
    if (field === 'stage') return stageName(destination, value, values.pipeline);
  }
  return showFieldValue(fieldOf(destination, kind, field), value);
}

function stageName(
  { pipelines }: Pick<Destination, 'pipelines'>,
  key: string,
  pipeline: FieldValue | undefined,
): string {
  const own = pipelines.find((one) => one.key === pipeline);
  const names = (own ? [own] : pipelines).flatMap((one) => stageOf(one, key)?.name ?? []);
  return [...new Set(names)].join(' or ') || key;
}
