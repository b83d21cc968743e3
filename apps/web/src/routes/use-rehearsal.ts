import { ROUTE_SAMPLES, type ProfileFieldShape } from '@haycart/api';
import {
  answerText,
  checkPayload,
  isJsonObject,
  payloadFields,
  readVisit,
  valueKind,
  type JsonObject,
  type JsonValue,
  type RouteDefinition,
  type RouteSurroundings,
  type Submission,
} from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { exampleQuery, profileQuery, latestSubmissionsQuery, submissionQuery } from '../api/queries';
import type { SampleChoice } from './rehearsal';
import { useRehearsedPlan, type Rehearsed } from './use-rehearsed-plan';

/** Rehearses a draft as it is typed, on one sample, with the code and records that run live. */
export function useRehearsal(
  definition: RouteDefinition,
  surroundings: RouteSurroundings,
): Rehearsed & {
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
  choice: SampleChoice;
} {
  const [params] = useSearchParams();
  const intake = definition.from[0] ?? '';
  const wanted = params.get('sample');
  const latest = useQuery({ ...latestSubmissionsQuery(intake, ROUTE_SAMPLES), enabled: intake !== '' });
  const given = useQuery({ ...submissionQuery(wanted ?? ''), enabled: wanted !== null });
  const keys = useQuery({ ...profileQuery(intake), enabled: intake !== '' });
  const [index, setIndex] = useState(0);
  useEffect(() => setIndex(0), [wanted]);
  const [typed, setTyped] = useState<string | null>(null);

  const samples = useMemo(() => {
    const readable = (latest.data?.items ?? []).filter(({ payload }) => payload !== null);
    return given.data?.payload ? [given.data, ...readable.filter(({ id }) => id !== given.data.id)] : readable;
  }, [latest.data, given.data]);
  // Before anything came, a form is answered by nobody.
  const isEmpty = latest.data !== undefined && samples.length === 0 && wanted === null;
  const example = useQuery({ ...exampleQuery(intake), enabled: isEmpty && intake !== '' });
  const madeUp = isEmpty ? (example.data?.payload ?? null) : null;
  const chosen = samples[Math.min(index, samples.length - 1)];
  const own = useMemo(() => (typed === null ? null : readTyped(typed)), [typed]);
  const payload = own ? own.payload : (chosen?.payload ?? madeUp ?? undefined);
  const waits = wanted !== null && given.isPending;
  const submission = useMemo((): Submission | null => {
    if (waits) return null;
    if (own) return own.payload === undefined ? null : asArrived(own.payload, intake);
    return chosen && isJsonObject(chosen.payload)
      ? {
          id: chosen.id,
          intake: chosen.intake.key,
          receivedAt: chosen.receivedAt,
          payload: chosen.payload,
          visit: chosen.visit,
          origin: chosen.origin,
        }
      : madeUp && asArrived(madeUp, intake);
  }, [waits, own, intake, chosen, madeUp]);
  const rehearsed = useRehearsedPlan(definition, submission, surroundings);
  const sample = useMemo(
    () =>
      new Map(isJsonObject(payload) ? payloadFields(payload).map(({ key, value }) => [key, answerText(value)]) : []),
    [payload],
  );
  const incoming = useMemo(() => withSample(keys.data?.fields ?? [], payload), [keys.data, payload]);

  return {
    ...rehearsed,
    incoming,
    sample,
    choice: {
      samples,
      madeUp,
      total: latest.data?.total ?? samples.length,
      index: Math.min(index, Math.max(0, samples.length - 1)),
      step: (by) => setIndex((before) => Math.max(0, Math.min(samples.length - 1, before + by))),
      typed,
      type: setTyped,
      typedProblem: own?.problem ?? null,
    },
  };
}

function readTyped(text: string): { payload: JsonObject | undefined; problem: string | null } {
  try {
    const payload = JSON.parse(text) as JsonValue;
    const problem = checkPayload(payload);
    return problem ? { payload: undefined, problem: problem.text } : { payload: payload as JsonObject, problem: null };
  } catch {
    return { payload: undefined, problem: 'This is not valid JSON yet.' };
  }
}

/** A payload that nobody sent, as if it arrived now. */
function asArrived(payload: JsonObject, intake: string): Submission {
  return {
    id: 'rehearsal',
    intake,
    receivedAt: new Date().toISOString(),
    payload,
    visit: readVisit({ handedOver: payload._visit }),
  };
}

/** The fields that came so far, with those that only the sample has at the end. */
function withSample(fields: readonly ProfileFieldShape[], sample: JsonValue | undefined): ProfileFieldShape[] {
  const known = new Set(fields.flatMap(({ key, also }) => [key, ...also]));
  const own = isJsonObject(sample) ? payloadFields(sample).filter(({ key }) => !known.has(key)) : [];
  return [...fields, ...own.map(onlyInSample)];
}

function onlyInSample({ key, label, pointer, value }: ReturnType<typeof payloadFields>[number]): ProfileFieldShape {
  const text = answerText(value);
  const now = new Date().toISOString();
  return {
    key,
    label: label ?? key,
    named: false,
    pointer,
    kind: valueKind(value) ?? 'text',
    sent: 0,
    filled: text === '' ? 0 : 1,
    distinct: 0,
    more: false,
    values: [],
    examples: text === '' ? [] : [text],
    firstSeen: now,
    lastSeen: now,
    lastFilled: null,
    also: [],
    dateOrder: null,
  };
}
