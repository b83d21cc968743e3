import type { MergeRehearsal } from '@haycart/api';
import type { RecordKind } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call } from '../api/client';
import { fieldsQuery } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { useWords } from '../api/words';
import { ComparedSides, sideOf } from '../components/compared-sides';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { recordNumber } from '../components/format';
import { KeptValues, type ChosenValues } from '../components/kept-values';
import { Failed, Loading } from '../components/status';
import { SelectField } from '../components/text-field';

/** Makes one record of several that a person chose: what it keeps, and which number it goes by. */
export function MergeDialog({
  kind,
  ids,
  close,
  done,
}: {
  kind: RecordKind;
  ids: readonly string[];
  close: () => void;
  done?: () => void;
}) {
  const words = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const fields = useQuery(fieldsQuery);
  const [survivor, setSurvivor] = useState<string>();
  const [values, setValues] = useState<ChosenValues>({});
  const wish = { kind, ids, ...(survivor ? { survivor } : {}) };
  const rehearsal = useQuery({
    queryKey: ['records', 'merge', wish],
    queryFn: () => call<MergeRehearsal>('POST', '/merges/rehearse', wish),
    retry: false,
  });
  const merge = useMutation({
    mutationFn: () => call<{ survivor: string }>('POST', '/merges', { ...wish, values }),
    onSuccess: async ({ survivor: stays }) => {
      done?.();
      close();
      toast(`They are one ${words.one(kind)} now. It can be undone on its page.`);
      await navigate(`/records/${PLURALS[kind]}/${stays}`);
      await client.invalidateQueries({ queryKey: ['records'] });
    },
  });
  const sides = rehearsal.data?.sides ?? [];
  const [one, other] = sides;
  return (
    <Dialog open wide close={close} title={`Make one ${words.one(kind)} of ${ids.length}`}>
      {rehearsal.isPending && <Loading />}
      {rehearsal.isError && <Failed error={rehearsal.error} retry={() => void rehearsal.refetch()} />}
      {rehearsal.data && one && other && (
        <form
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            merge.mutate();
          }}
        >
          <SelectField
            label="The record that stays"
            value={survivor ?? rehearsal.data.survivor}
            onChange={({ target }) => setSurvivor(target.value)}
            help="The numbers and addresses of the others lead to it."
          >
            {sides.map(({ id, number, name }) => (
              <option key={id} value={id}>
                {recordNumber(kind, number)} {name}
              </option>
            ))}
          </SelectField>
          {sides.length === 2 && (
            <ComparedSides
              one={sideOf(one)}
              other={sideOf(other)}
              shares={kind === 'deal' ? [] : rehearsal.data.shares}
              fields={(fields.data ?? []).filter(({ record }) => record === kind)}
            />
          )}
          <KeptValues
            fields={rehearsal.data.fields}
            chosen={values}
            choose={(field, value) => setValues((before) => ({ ...before, [field]: value }))}
          />
          <DialogActions
            error={merge.error}
            close={close}
            action={`Make one of ${ids.length}`}
            disabled={merge.isPending}
            note="Can be undone at any time."
          />
        </form>
      )}
    </Dialog>
  );
}
