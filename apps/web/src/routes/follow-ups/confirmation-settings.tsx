import { daysToConfirm, MOST_DAYS_TO_CONFIRM, type ConfirmationHold, type Destination } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { newConfirmTemplate } from '../../api/confirm-template';
import { messageOf } from '../../components/status';
import { SelectField, TextField } from '../../components/text-field';

const NEW = '*new';

/** By which mail the visitor confirms, and for how long they can. */
export function ConfirmationSettings({
  hold,
  name,
  destination: { templates = [] },
  put,
}: {
  hold: ConfirmationHold;
  name: string;
  destination: Destination;
  put: (next: ConfirmationHold) => void;
}) {
  const client = useQueryClient();
  const make = useMutation({
    mutationFn: () => newConfirmTemplate(templates),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['channels'] });
      put({ ...hold, template: key });
    },
  });
  return (
    <>
      <span className="text-muted">by the visitor, with the mail</span>
      <div className="w-52 max-sm:w-full">
        <SelectField
          label={`The mail of the ${name}`}
          hideLabel
          value={hold.template}
          onChange={({ target }) => (target.value === NEW ? make.mutate() : put({ ...hold, template: target.value }))}
        >
          <option value="">choose a template</option>
          {templates.map((template) => (
            <option key={template.key} value={template.key}>
              {template.name}
            </option>
          ))}
          <option value={NEW}>a new one with the link…</option>
        </SelectField>
      </div>
      <span className="text-muted">within</span>
      <TextField
        label={`Days for the ${name}`}
        hideLabel
        type="number"
        min={1}
        max={MOST_DAYS_TO_CONFIRM}
        value={daysToConfirm(hold.within) ?? ''}
        onChange={({ target }) => put({ ...hold, within: `P${target.value.replace(/\D/g, '').slice(0, 3) || '0'}D` })}
        className="!w-20 text-right tabular-nums"
      />
      <span className="text-muted">days</span>
      {make.isError && <span className="text-brick">{messageOf(make.error)}</span>}
    </>
  );
}
