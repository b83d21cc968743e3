import type { DoneEdit, QualifyRehearsal, RecordShape } from '@haycart/api';
import { defaultStageOf, fieldOf, showFieldValue, type FieldDefinition } from '@haycart/core';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { offerUndo, useRecordEdit } from '../api/edits';
import { fieldsQuery, pipelinesQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { ClosingReason } from '../components/closing-reason';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { messageOf } from '../components/status';
import { SelectField, TextField } from '../components/text-field';

/** What becomes of a lead: qualified, set aside, opened again. */
export function LeadActions({ lead }: { lead: RecordShape }) {
  const [doing, setDoing] = useState<'qualify' | 'set-aside' | null>(null);
  const setAside = useRecordEdit((reason: string) => call<DoneEdit>('POST', `/leads/${lead.id}/set-aside`, { reason }));
  const reopen = useRecordEdit(() => call<DoneEdit>('POST', `/leads/${lead.id}/reopen`));
  const { status } = lead.values;
  if (status === 'qualified') return <span className="self-center text-muted">qualified</span>;
  if (status === 'set-aside')
    return (
      <>
        <span className="self-center text-muted">set aside: {String(lead.values.reason ?? '')}</span>
        <Button disabled={reopen.isPending} onClick={() => reopen.mutate(undefined)}>
          Open again
        </Button>
      </>
    );
  return (
    <>
      <Button onClick={() => setDoing('set-aside')}>Set aside</Button>
      <Button look="main" onClick={() => setDoing('qualify')}>
        Qualify
      </Button>
      {doing === 'qualify' && <Qualify lead={lead} close={() => setDoing(null)} />}
      {doing === 'set-aside' && (
        <ClosingReason
          title={`Set ${lead.name} aside`}
          won={false}
          needed
          action="Set aside"
          close={() => setDoing(null)}
          decide={(reason) => {
            setDoing(null);
            setAside.mutate(reason);
          }}
        />
      )}
    </>
  );
}

/** Shows what qualifying does before it is done: who is found, who is made, and the deal. */
function Qualify({ lead, close }: { lead: RecordShape; close: () => void }) {
  const words = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const fields = useQuery(fieldsQuery).data ?? [];
  const pipelines = (useQuery(pipelinesQuery).data ?? []).filter(({ record }) => record === 'deal');
  const [pipelineKey, setPipeline] = useState<string>();
  const [stageKey, setStage] = useState<string>();
  const [dealName, setDealName] = useState('');
  const pipeline = pipelines.find(({ key }) => key === pipelineKey) ?? pipelines[0];
  const stage = stageKey ?? (pipeline && defaultStageOf(pipeline)?.key);
  const wish = { pipeline: pipeline?.key, stage, ...(dealName.trim() ? { dealName: dealName.trim() } : {}) };
  const rehearsal = useQuery({
    queryKey: ['records', 'qualify', lead.id, wish],
    queryFn: () => call<QualifyRehearsal>('POST', `/leads/${lead.id}/qualify/rehearse`, wish),
    enabled: pipeline !== undefined,
    placeholderData: keepPreviousData,
  });
  const qualify = useMutation({
    mutationFn: () => call<DoneEdit & { deal: string }>('POST', `/leads/${lead.id}/qualify`, wish),
    onSuccess: async (done) => {
      close();
      await client.invalidateQueries({ queryKey: ['records'] });
      await navigate(`/records/deals/${done.deal}`);
      offerUndo(client, done);
    },
  });
  const plan = rehearsal.data;
  return (
    <Dialog open close={close} wide title={`Qualify ${lead.name}`} description="Nothing is written before you say so.">
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          qualify.mutate();
        }}
      >
        <div className="grid gap-3 sm:grid-cols-3">
          <SelectField
            label="Pipeline"
            value={pipeline?.key ?? ''}
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
          </SelectField>
          <SelectField label="Stage" value={stage ?? ''} onChange={({ target }) => setStage(target.value)}>
            {pipeline?.stages
              .filter(({ state }) => state === 'open')
              .map(({ key, name }) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
          </SelectField>
          <TextField
            label={`Name of the ${words.one('deal')}`}
            placeholder={[lead.values.company_name, lead.name].filter(Boolean).join(', ')}
            value={dealName}
            onChange={({ target }) => setDealName(target.value)}
          />
        </div>
        {rehearsal.isError && (
          <p role="alert" className="text-brick">
            {messageOf(rehearsal.error)}
          </p>
        )}
        {plan?.outcome === 'write' && (
          <div className="grid gap-3 sm:grid-cols-3">
            {plan.writes
              .filter(({ did }) => did !== 'none')
              .map((write) => (
                <PlannedCard key={write.as} write={write} name={plan.names[write.id ?? '']} fields={fields} />
              ))}
          </div>
        )}
        {plan && plan.outcome !== 'write' && (
          <p role="alert" className="text-brick">
            {plan.reason?.text} Fill that in on the lead first.
          </p>
        )}
        <DialogActions
          error={qualify.error}
          close={close}
          action="Qualify"
          disabled={qualify.isPending || plan?.outcome !== 'write'}
        />
      </form>
    </Dialog>
  );
}

function PlannedCard({
  write,
  name,
  fields,
}: {
  write: QualifyRehearsal['writes'][number];
  name: string | undefined;
  fields: readonly FieldDefinition[];
}) {
  const words = useWords();
  const destination = { fields: [...fields], pipelines: [], defaultCountry: '', defaultCurrency: '' };
  const written = write.fields.filter(({ did, after }) => did === 'write' && after !== null);
  return (
    <section className="rounded border border-line bg-sheet">
      <h3 className="border-b border-line px-3 py-1.5 text-[14px]">
        {write.did === 'create' ? `New ${words.one(write.record)}` : `${words.One(write.record)} found`}
      </h3>
      {name && <p className="px-3 pt-1.5 font-semibold">{name}</p>}
      <dl className="px-3 py-1.5 text-small">
        {written.map(({ field, after }) => (
          <div key={field} className="flex gap-2">
            <dt className="w-20 flex-none truncate text-muted">
              {fieldOf(destination, write.record, field)?.label ?? field}
            </dt>
            <dd className="min-w-0 [overflow-wrap:anywhere]">
              {showFieldValue(fieldOf(destination, write.record, field), after)}
            </dd>
          </div>
        ))}
        {!written.length && <p className="text-muted">Nothing about it changes.</p>}
      </dl>
    </section>
  );
}
