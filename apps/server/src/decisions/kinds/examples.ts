import { readPayload, whoSent, type BodyFormat } from '@haycart/core';
import type { DecisionShape } from '@haycart/api';

/** A submission that a decision is about. */
export interface Example extends Record<string, unknown> {
  submission_id: string;
  received_at: Date;
  format: BodyFormat;
  body: Buffer;
  text: string;
}

/** An example as it is shown: who sent it is read from what came. */
export function exampleOf(example: Example): DecisionShape['examples'][number] {
  const read = readPayload(example.format, example.body);
  const { who, email } = read.ok ? whoSent(read.payload) : { who: '', email: '' };
  return {
    submission: example.submission_id,
    who: who || email,
    at: example.received_at.toISOString(),
    text: example.text,
  };
}
