import type { DoneEdit, ProblemAt } from '@haycart/api';
import type { FieldDefinition, JsonValue, RecordKind } from '@haycart/core';
import { defaultStageOf } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiError, call } from '../api/client';
import { offerUndo } from '../api/edits';
import { pipelinesQuery } from '../api/queries';
import { useWords } from '../api/words';
import { PLURALS } from '../api/record-kinds';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { FieldInput } from '../components/field-input';

const FIRST: Record<RecordKind, string[]> = {
  contact: ['first_name', 'last_name', 'email', 'phone', 'job_title', 'owner'],
  company: ['name', 'domain', 'website', 'phone', 'country', 'owner'],
  lead: ['name', 'email', 'phone', 'company_name', 'message', 'owner'],
  deal: ['name', 'value', 'owner'],
};

/** Makes a record by hand: what it needs and what it usually has; the rest follows on its page. */
export function NewRecord({
  kind,
  fields,
  links = [],
  close,
}: {
  kind: RecordKind;
  fields: readonly FieldDefinition[];
  /** Records that the new one points to. */
  links?: readonly string[];
  close: () => void;
}) {
  const words = useWords();
  const navigate = useNavigate();
  const client = useQueryClient();
  const pipelines = (useQuery(pipelinesQuery).data ?? []).filter(({ record }) => record === kind);
  const [values, setValues] = useState<Record<string, JsonValue>>({});
  const [pipelineKey, setPipeline] = useState<string>();
  const [stageKey, setStage] = useState<string>();
  const pipeline = pipelines.find(({ key }) => key === pipelineKey) ?? pipelines[0];
  const stage = stageKey ?? (pipeline && defaultStageOf(pipeline)?.key);
  const shown = fields.filter((field) => FIRST[kind].includes(field.key) || (field.required && !field.kept));
  const make = useMutation({
    mutationFn: () =>
      call<DoneEdit & { id: string }>('POST', `/${PLURALS[kind]}`, {
        values: Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)),
        links,
        ...(pipeline ? { pipeline: pipeline.key, stage } : {}),
      }),
    onSuccess: (done) => {
      close();
      offerUndo(client, done);
      void client.invalidateQueries({ queryKey: ['records'] });
      void navigate(`/records/${PLURALS[kind]}/${done.id}`);
    },
  });
  const wrong: ProblemAt[] = make.error instanceof ApiError ? (make.error.problem.errors ?? []) : [];
  return (
    <Dialog open close={close} title={`New ${words.one(kind)}`}>
      <form
        noValidate
        className="flex flex-col gap-2.5"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        {shown.map((field, index) => {
          const problem = wrong.find(({ at }) => at === `/values/${field.key}`);
          return (
            <label key={field.key} className="grid grid-cols-[120px_minmax(0,1fr)] items-start gap-x-3">
              <span className="pt-1.5 text-muted">
                {field.label}
                {field.required && <span aria-hidden> *</span>}
              </span>
              <span>
                <FieldInput
                  field={field}
                  label={field.label}
                  value={values[field.key] ?? null}
                  change={(value) => setValues((before) => ({ ...before, [field.key]: value }))}
                  autoFocus={index === 0}
                  invalid={problem !== undefined}
                />
                {problem && (
                  <span role="alert" className="block pt-0.5 text-small text-brick">
                    {problem.message}
                  </span>
                )}
              </span>
            </label>
          );
        })}
        {pipeline && (
          <label className="grid grid-cols-[120px_minmax(0,1fr)] items-center gap-x-3">
            <span className="text-muted">Stands in</span>
            <span className="grid grid-cols-2 gap-2">
              <select
                aria-label="Pipeline"
                className="h-8 rounded border-[1.5px] border-line bg-raised px-2"
                value={pipeline.key}
                onChange={({ target }) => {
                  setPipeline(target.value);
                  setStage(undefined);
                }}
              >
                {pipelines.map(({ key, name }) => (
                  <option key={key} value={key}>
                    {name}
                  </option>
                ))}
              </select>
              <select
                aria-label="Stage"
                className="h-8 rounded border-[1.5px] border-line bg-raised px-2"
                value={stage}
                onChange={({ target }) => setStage(target.value)}
              >
                {pipeline.stages
                  .filter(({ state }) => state === 'open')
                  .map(({ key, name }) => (
                    <option key={key} value={key}>
                      {name}
                    </option>
                  ))}
              </select>
            </span>
          </label>
        )}
        <DialogActions
          error={wrong.some(({ at }) => shown.some(({ key }) => at === `/values/${key}`)) ? null : make.error}
          close={close}
          action={`Make the ${words.one(kind)}`}
          disabled={make.isPending}
        />
      </form>
    </Dialog>
  );
}
