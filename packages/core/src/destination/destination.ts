import type { RecordKind } from '../diff/record';
import type { FieldDefinition } from './field-definition';

export interface Stage {
  key: string;
  name: string;
  state: 'open' | 'won' | 'lost';
  /** How many of a hundred deals in it are won in the end, as the sales team expects; whole percent. */
  probability?: number;
  /** After how many days in it a deal counts as stuck. */
  stuckAfter?: number;
}

/** An ordered way that deals (or leads) take; the order of the stages is the way forward. */
export interface Pipeline {
  key: string;
  name: string;
  record: 'deal' | 'lead';
  stages: Stage[];
  /** Where a record begins when nothing says in which stage; see `defaultStageOf`. */
  defaultStage?: string;
}

/** What a workspace has prepared for its records: everything a route may name by key. */
export interface Destination {
  fields: FieldDefinition[];
  pipelines: Pipeline[];
  /** ISO 3166-1 alpha-2: how a phone number without a country code is read. */
  defaultCountry: string;
  /** ISO 4217: the currency of an amount that names none. */
  defaultCurrency: string;
}

export function fieldOf(destination: Destination, record: RecordKind, key: string): FieldDefinition | undefined {
  return destination.fields.find((field) => field.record === record && field.key === key);
}

export function pipelineOf(destination: Pick<Destination, 'pipelines'>, key: string): Pipeline | undefined {
  return destination.pipelines.find((pipeline) => pipeline.key === key);
}

export function stageOf(pipeline: Pipeline | undefined, key: string): Stage | undefined {
  return pipeline?.stages.find((stage) => stage.key === key);
}
