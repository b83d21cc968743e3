import type { PipelineShape } from '@haycart/api';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { pipelinesQuery } from '../api/queries';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { SelectField, TextArea, TextField } from '../components/text-field';

interface Values {
  name: string;
  record: 'deal' | 'lead';
  stages: string;
}

/** Makes a pipeline with its open stages, one a line; winning and losing are added to them. */
export function NewPipeline({ open, close }: { open: boolean; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useForm<Values>({ defaultValues: { name: '', record: 'deal', stages: 'Enquiry\nQuote' } });
  const make = useMutation({
    mutationFn: ({ name, record, stages }: Values) =>
      call<PipelineShape>('POST', '/pipelines', {
        name: name.trim(),
        record,
        stages: [
          ...lines(stages).map((stage) => ({ name: stage })),
          { name: 'Won', state: 'won' },
          { name: 'Lost', state: 'lost' },
        ],
      }),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: pipelinesQuery.queryKey });
      form.reset();
      close();
      void navigate(`/set-up/pipelines/${key}`);
    },
  });
  const { errors } = form.formState;
  return (
    <Dialog open={open} close={close} title="New pipeline">
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
      >
        <TextField
          label="Name"
          placeholder="Care plans"
          autoFocus
          error={errors.name?.message}
          {...form.register('name', { validate: (name) => name.trim() !== '' || 'Give the pipeline a name.' })}
        />
        <SelectField label="Holds" {...form.register('record')}>
          <option value="deal">deals</option>
          <option value="lead">leads</option>
        </SelectField>
        <TextArea
          label="Open stages, one a line"
          help="In the order in which one goes through them. Won and Lost are added."
          rows={6}
          error={errors.stages?.message}
          {...form.register('stages', {
            validate: (stages) => lines(stages).length > 0 || 'Name at least one stage.',
          })}
        />
        <DialogActions error={make.error} close={close} action="Make it" disabled={make.isPending} />
      </form>
    </Dialog>
  );
}

function lines(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
}
