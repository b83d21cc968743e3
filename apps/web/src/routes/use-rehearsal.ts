import type { ProfileFieldShape, Rehearsal } from '@haycart/api';
import {
  answerText,
  isJsonObject,
  payloadFields,
  valueKind,
  type JsonValue,
  type RouteDefinition,
} from '@haycart/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call } from '../api/client';
import { profileQuery, latestSubmissionsQuery, submissionQuery } from '../api/queries';
import { useRested } from '../state/use-rested';
import type { SampleChoice } from './rehearsal';

const SAMPLES = 50;
/** How long typing must rest before the draft is rehearsed again, in milliseconds. */
const REST_MS = 150;

/** Rehearses a draft as it is typed, on one sample: by the server, with the code and records that run live. */
export function useRehearsal(definition: RouteDefinition): {
  plan: Rehearsal | undefined;
  error: unknown;
  planning: boolean;
  incoming: readonly ProfileFieldShape[];
  sample: ReadonlyMap<string, string>;
  choice: SampleChoice;
} {
  const [params] = useSearchParams();
  const intake = definition.from[0] ?? '';
  const wanted = params.get('sample');
  const latest = useQuery({ ...latestSubmissionsQuery(intake, SAMPLES), enabled: intake !== '' });
  const given = useQuery({ ...submissionQuery(wanted ?? ''), enabled: wanted !== null });
  const keys = useQuery({ ...profileQuery(intake), enabled: intake !== '' });
  const [index, setIndex] = useState(0);
  const [typed, setTyped] = useState<string | null>(null);

  const samples = useMemo(() => {
    const readable = (latest.data?.items ?? []).filter(({ payload }) => payload !== null);
    return given.data?.payload ? [given.data, ...readable.filter(({ id }) => id !== given.data.id)] : readable;
  }, [latest.data, given.data]);
  const chosen = samples[Math.min(index, samples.length - 1)];
  const own = useMemo(() => (typed === null ? null : readTyped(typed)), [typed]);
  const payload = own ? own.payload : (chosen?.payload ?? undefined);

  const possible = (own ? own.payload !== undefined : chosen !== undefined) && !(wanted !== null && given.isPending);
  const body = useRested(
    useMemo(
      () =>
        possible
          ? JSON.stringify({ definition, ...(own ? { payload: own.payload } : { submissionId: chosen?.id }) })
          : null,
      [possible, definition, own, chosen?.id],
    ),
    REST_MS,
  );
  const rehearsal = useQuery({
    queryKey: ['records', 'rehearsal', body],
    queryFn: () => call<Rehearsal>('POST', '/rehearse', JSON.parse(body ?? 'null')),
    enabled: body !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const sample = useMemo(
    () =>
      new Map(isJsonObject(payload) ? payloadFields(payload).map(({ key, value }) => [key, answerText(value)]) : []),
    [payload],
  );
  const incoming = useMemo(() => withSample(keys.data?.fields ?? [], payload), [keys.data, payload]);

  return {
    plan: rehearsal.isError ? undefined : rehearsal.data,
    error: rehearsal.error,
    planning: rehearsal.isFetching,
    incoming,
    sample,
    choice: {
      samples,
      total: latest.data?.total ?? samples.length,
      index: Math.min(index, Math.max(0, samples.length - 1)),
      step: (by) => setIndex((before) => Math.max(0, Math.min(samples.length - 1, before + by))),
      typed,
      type: setTyped,
      typedProblem: own?.problem ?? null,
    },
  };
}

function readTyped(text: string): { payload: JsonValue | undefined; problem: string | null } {
  try {
    const payload = JSON.parse(text) as JsonValue;
    return isJsonObject(payload)
      ? { payload, problem: null }
      : { payload: undefined, problem: 'A sample is a JSON object: { … }' };
  } catch {
    return { payload: undefined, problem: 'This is not valid JSON yet.' };
  }
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
