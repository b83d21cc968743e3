import type { DoneEdit } from '@haycart/api';
import type { FieldDefinition, JsonValue, RecordKind } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../api/client';
import { offerUndo } from '../api/edits';
import { useWords } from '../api/words';
import { PLURALS } from '../api/record-kinds';
import { Button } from '../components/button';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { FieldInput } from '../components/field-input';
import { MergeDialog } from './merge-dialog';

/** What is chosen in a list: some rows, or everything that it shows. */
export interface Chosen {
  ids: ReadonlySet<string>;
  /** Set when everything is meant: the list's own query, and how many that are. */
  all: { query: Record<string, string>; total: number } | null;
}

type Doing = 'edit' | 'add' | 'remove' | 'delete';

/** The most records that are merged at once. */
const MOST_MERGED = 10;

/** What can be done with all that is chosen, in one act that can be taken back. */
export function BulkBar({
  kind,
  chosen,
  fields,
  everything,
  clear,
}: {
  kind: RecordKind;
  chosen: Chosen;
  fields: readonly FieldDefinition[];
  /** Chooses everything that the list shows; absent when that is chosen, or no more than the rows that are. */
  everything: { total: number; choose: () => void } | null;
  clear: () => void;
}) {
  const [doing, setDoing] = useState<Doing | 'merge' | null>(null);
  const words = useWords();
  const count = chosen.all?.total ?? chosen.ids.size;
  return (
    <div
      role="toolbar"
      aria-label="What is chosen"
      className="mb-2 flex flex-wrap items-center gap-2 rounded border border-ink bg-straw-soft px-3 py-1.5"
    >
      <b className="font-semibold">{words.counted(count, kind)} chosen</b>
      {everything && (
        <button type="button" className="text-slate underline" onClick={everything.choose}>
          choose all {everything.total.toLocaleString('en-GB')}
        </button>
      )}
      <span className="ml-auto flex flex-wrap gap-2">
        <Button onClick={() => setDoing('edit')}>Change a field</Button>
        <Button onClick={() => setDoing('add')}>{kind === 'contact' ? 'Tag or list' : 'Tag'}</Button>
        <Button onClick={() => setDoing('remove')}>{kind === 'contact' ? 'Untag or unlist' : 'Untag'}</Button>
        {!chosen.all && count > 1 && count <= MOST_MERGED && (
          <Button onClick={() => setDoing('merge')}>Make one of them</Button>
        )}
        <Button look="danger" onClick={() => setDoing('delete')}>
          Delete
        </Button>
        <Button onClick={clear}>Clear</Button>
      </span>
      {doing === 'merge' && <MergeDialog kind={kind} ids={[...chosen.ids]} close={() => setDoing(null)} done={clear} />}
      {doing && doing !== 'merge' && (
        <BulkDialog
          kind={kind}
          chosen={chosen}
          fields={fields}
          doing={doing}
          count={count}
          close={() => setDoing(null)}
          done={clear}
        />
      )}
    </div>
  );
}

const TITLES: Record<Doing, string> = {
  edit: 'Change a field of',
  add: 'Put on',
  remove: 'Take off',
  delete: 'Delete',
};
const ACTIONS: Record<Doing, string> = { edit: 'Change', add: 'Put on', remove: 'Take off', delete: 'Delete' };

function BulkDialog({
  kind,
  chosen,
  fields,
  doing,
  count,
  close,
  done,
}: {
  kind: RecordKind;
  chosen: Chosen;
  fields: readonly FieldDefinition[];
  doing: Doing;
  count: number;
  close: () => void;
  done: () => void;
}) {
  const words = useWords();
  const client = useQueryClient();
  const choices = fields.filter((field) =>
    doing === 'edit' ? mayChangeMany(field) : field.byHand && field.type === 'several-of' && field.options,
  );
  const [key, setKey] = useState(choices.find((field) => field.key === 'owner' || field.key === 'tags')?.key ?? '');
  const [value, setValue] = useState<JsonValue>(null);
  const field = choices.find((one) => one.key === key);
  const which = chosen.all ? { query: chosen.all.query } : { ids: [...chosen.ids] };
  const work = useMutation({
    mutationFn: () => {
      if (doing === 'delete') return call<DoneEdit>('POST', `/${PLURALS[kind]}/delete`, which);
      const edit = doing === 'edit' ? { values: { [key]: value } } : { [doing]: { [key]: value ?? [] } };
      return call<DoneEdit>('POST', `/${PLURALS[kind]}/edit`, { ...which, edit });
    },
    onSuccess: async (answer) => {
      close();
      done();
      offerUndo(client, answer);
      await client.invalidateQueries({ queryKey: ['records'] });
    },
  });
  return (
    <Dialog
      open
      close={close}
      title={`${TITLES[doing]} ${words.counted(count, kind)}`}
      description={
        doing === 'delete'
          ? 'Their links go too; notes, tasks and files wait. It is one act, and can be taken back as one.'
          : 'All of them or none. It is one act, and can be taken back as one.'
      }
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          work.mutate();
        }}
      >
        {doing !== 'delete' && (
          <>
            <select
              aria-label="Field"
              value={key}
              onChange={({ target }) => {
                setKey(target.value);
                setValue(null);
              }}
              className="h-8 rounded border-[1.5px] border-line bg-raised px-2"
            >
              {choices.map((one) => (
                <option key={one.key} value={one.key}>
                  {one.label}
                </option>
              ))}
            </select>
            {field && <FieldInput field={field} value={value} change={setValue} label={`New ${field.label}`} />}
          </>
        )}
        <DialogActions
          error={work.error}
          close={close}
          action={ACTIONS[doing]}
          disabled={work.isPending || (doing !== 'delete' && (!field || (doing !== 'edit' && value === null)))}
        />
      </form>
    </Dialog>
  );
}

/** Many records cannot share an address. */
function mayChangeMany({ kept, byHand, key, type, unique }: FieldDefinition): boolean {
  return (
    (!kept || byHand === true) && !unique && !['email', 'emails', 'phones', 'domain'].includes(key) && type !== 'email'
  );
}
