import type { SubmissionDetail } from '@haycart/api';
import { counted, isJsonObject, payloadFields, type PayloadField } from '@haycart/core';
import { useState } from 'react';
import { sentFile, sized } from './sent-file';
import { Mono } from './sheet';

/** How many answers are shown before one asks for all. */
const FIRST = 30;

/** The answers that were sent, with their keys and questions; beneath them the body as it came, and the visit. */
export function WhatWasSent({ submission }: { submission: SubmissionDetail }) {
  const { payload, files, unreadable } = submission;
  const [showsAll, showAll] = useState(false);
  const fields = isJsonObject(payload) ? payloadFields(payload) : [];
  const shown = showsAll ? fields : fields.slice(0, FIRST);
  return (
    <section aria-label="What was sent" className="mt-4 border-t border-line pt-3">
      <h3 className="mb-1.5 text-[14px]">
        What was sent{' '}
        <span className="font-sans text-small font-normal text-muted">
          {[counted(fields.length, 'answer'), ...(files.length ? [counted(files.length, 'file')] : [])].join(', ')}
        </span>
      </h3>
      {unreadable && <p className="mb-2 text-brick">{unreadable}</p>}
      <dl className="grid grid-cols-[minmax(0,170px)_minmax(0,1fr)] gap-x-3 text-[13px] leading-5">
        {shown.map((field) => (
          <div key={field.key} className="contents">
            <dt className="truncate" title={field.label ?? field.key}>
              {field.label ?? <Mono>{field.key}</Mono>}
            </dt>
            <dd className="min-w-0 [overflow-wrap:anywhere]">
              <Answer field={field} submission={submission} />
            </dd>
          </div>
        ))}
      </dl>
      {fields.length > shown.length && (
        <button type="button" className="mt-1 text-slate underline" onClick={() => showAll(true)}>
          Show all {counted(fields.length, 'answer')}
        </button>
      )}
      <AsItCame submission={submission} />
    </section>
  );
}

function Answer({
  field: { value },
  submission: { id, files },
}: {
  field: PayloadField;
  submission: SubmissionDetail;
}) {
  const sent = files.filter((file) => (Array.isArray(value) ? value.includes(file.id) : value === file.id));
  if (sent.length)
    return sent.map((file) => (
      <span key={file.id} className="block">
        <a href={sentFile(id, file.id)} download className="text-slate underline">
          {file.name}
        </a>
        , {sized(file.size)}
      </span>
    ));
  const text = Array.isArray(value) ? value.join(', ') : String(value ?? '');
  return text === '' ? <span className="text-muted">blank</span> : <span className="whitespace-pre-line">{text}</span>;
}

function AsItCame({ submission: { payload, raw, unreadable, visit, origin } }: { submission: SubmissionDetail }) {
  const { earlier = [], ...texts } = visit;
  const surroundings = Object.entries({
    ...texts,
    ...(earlier.length ? { earlier: counted(earlier.length, 'earlier visit') } : {}),
    ...origin,
  });
  return (
    <details className="mt-3" open={unreadable !== null}>
      <summary className="cursor-pointer text-muted">As it came, and the visit</summary>
      <pre
        className="mt-2 overflow-x-auto rounded border border-line bg-raised p-2.5 font-mono text-[12px] leading-[17px] whitespace-pre-wrap [overflow-wrap:anywhere]"
        tabIndex={0}
      >
        {payload === null ? raw : JSON.stringify(payload, null, 2)}
      </pre>
      <h3 className="mt-3 mb-1 text-[14px]">The visit</h3>
      <dl className="grid grid-cols-[110px_minmax(0,1fr)] gap-x-3 text-small">
        {surroundings.map(([name, value]) => (
          <div key={name} className="contents">
            <dt>
              <Mono>{name}</Mono>
            </dt>
            <dd className="[overflow-wrap:anywhere]">{value}</dd>
          </div>
        ))}
        {surroundings.length === 0 && <p className="col-span-2 text-muted">Nothing was recorded.</p>}
      </dl>
    </details>
  );
}
