import type { RouteShape } from '@haycart/api';
import {
  adoptRoute,
  listInWords,
  readRoute,
  ROUTE_OUTLINES,
  routeFromOutline,
  usualOutline,
  type Destination,
  type RouteDefinition,
  type RouteOutline,
} from '@haycart/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { profileQuery, intakeLinesQuery } from '../api/queries';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { SelectField, TextField } from '../components/text-field';
import { useDestination } from '../api/destination';

const FROM_FILE = 'file';

interface Wish {
  name: string;
  intake: string;
  outline: RouteOutline | typeof FROM_FILE | '';
  file?: FileList;
}

function titleOf(outline: RouteOutline): string {
  return ROUTE_OUTLINES.find(({ key }) => key === outline)!.title;
}

/** The definition in a file, or what is wrong with it. */
async function readFile(files: FileList | undefined): Promise<{ route: RouteDefinition } | { problem: string }> {
  if (!files?.[0]) return { problem: 'Choose the file.' };
  let definition: unknown;
  try {
    definition = JSON.parse(await files[0].text());
  } catch {
    return { problem: 'This file is not JSON.' };
  }
  const read = readRoute(definition);
  if (read.ok) return { route: read.route };
  const format = (definition as { format?: unknown } | null)?.format;
  return {
    problem:
      typeof format === 'string' && /^haycart\.route\/\d+$/.test(format) && format !== 'haycart.route/1'
        ? `This file is in the later format ${format}. Take the route away again from a Hay Cart of this version.`
        : `This file is no route: ${read.problems[0]!.text}`,
  };
}

/** A route from a file in this workspace’s names; what was matched is told. */
function adopted(definition: RouteDefinition, destination: Destination): RouteDefinition {
  const { route, adopted: names } = adoptRoute(definition, destination);
  if (names.length)
    toast(
      `Matched to names of this workspace: ${listInWords(names.map(({ what, from, to }) => `${what} ${from} is ${to}`))}.`,
      { duration: 10_000 },
    );
  return route;
}

/** Makes a draft from what an intake has sent so far, and leads to its sheet. `from`: the key of the intake, where chosen. */
export function NewRoute({ open, from, close }: { open: boolean; from: string; close: () => void }) {
  const intakes = useQuery(intakeLinesQuery);
  const destination = useDestination();
  const client = useQueryClient();
  const navigate = useNavigate();
  const chosen = intakes.data?.find(({ key }) => key === from);
  const form = useForm<Wish>({
    values: { name: chosen?.name ?? '', intake: chosen?.key ?? '', outline: '' },
    resetOptions: { keepDirtyValues: true },
  });
  const usual = (intake: string) => usualOutline(destination!, intakes.data?.find(({ key }) => key === intake)?.kind);
  const make = useMutation({
    mutationFn: async ({ name, intake, outline, file }: Wish) => {
      const { fields } = await client.fetchQuery(profileQuery(intake));
      const read = outline === FROM_FILE ? await readFile(file) : null;
      const definition =
        read && 'route' in read
          ? adopted({ ...read.route, name: name.trim(), from: [intake] }, destination!)
          : routeFromOutline(
              (outline !== FROM_FILE && outline) || usual(intake),
              { name: name.trim(), intake, seen: fields },
              destination!,
            );
      return call<RouteShape>('POST', '/routes', { definition });
    },
    onSuccess: ({ id }) => {
      close();
      void navigate(`/routes/${id}`);
    },
  });
  const { errors } = form.formState;
  const outline = form.watch('outline');
  const intake = form.watch('intake');
  return (
    <Dialog
      open={open}
      close={close}
      title="New route"
      description="It starts as a draft, fed by what the intake has sent so far. Nothing is written before you publish it."
    >
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
      >
        <SelectField
          label="Takes from"
          error={errors.intake?.message}
          {...form.register('intake', {
            required: 'Choose where the submissions come from.',
            // Until somebody types a name, the route is called like its intake.
            onChange: ({ target }: { target: HTMLSelectElement }) => {
              if (!form.getFieldState('name').isDirty)
                form.resetField('name', { defaultValue: target.value ? (target.selectedOptions[0]?.text ?? '') : '' });
            },
          })}
        >
          <option value="">Choose an intake</option>
          {intakes.data?.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Begins as" {...form.register('outline')}>
          <option value="">{destination ? `the usual: ${titleOf(usual(intake))}` : 'the usual'}</option>
          {ROUTE_OUTLINES.map(({ key, title }) => (
            <option key={key} value={key}>
              {title}
            </option>
          ))}
          <option value={FROM_FILE}>A route from a file</option>
        </SelectField>
        {outline === FROM_FILE ? (
          <TextField
            label="The file"
            type="file"
            accept=".json,application/json"
            help="What it names and this workspace does not have is listed on its sheet."
            error={errors.file?.message}
            {...form.register('file', {
              validate: async (files) => {
                const read = await readFile(files);
                return 'problem' in read ? read.problem : true;
              },
            })}
          />
        ) : (
          <p className="-mt-2 text-small text-muted">
            {ROUTE_OUTLINES.find(({ key }) => key === (outline || (destination && usual(intake))))?.what}
          </p>
        )}
        <TextField
          label="Name"
          placeholder="Show stand enquiries"
          error={errors.name?.message}
          {...form.register('name', { validate: (name) => name.trim() !== '' || 'Give it a name.' })}
        />
        <DialogActions
          error={make.error}
          close={close}
          action="Make the draft"
          disabled={make.isPending || !destination}
        />
      </form>
    </Dialog>
  );
}
