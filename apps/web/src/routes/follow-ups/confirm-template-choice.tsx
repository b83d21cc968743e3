import type { MailTemplate } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { newConfirmTemplate } from '../../api/confirm-template';
import { messageOf } from '../../components/status';
import { SelectField } from '../../components/text-field';

const NEW = '*new';

/** By which mail somebody confirms: a template that there is, or a new one with the link. */
export function ConfirmTemplateChoice({
  label,
  value,
  templates = [],
  none = 'choose a template',
  choose,
}: {
  label: string;
  value: string | undefined;
  templates: readonly MailTemplate[] | undefined;
  /** What choosing none is called. */
  none?: string;
  choose: (key: string) => void;
}) {
  const client = useQueryClient();
  const make = useMutation({
    mutationFn: () => newConfirmTemplate(templates),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['channels'] });
      choose(key);
    },
  });
  return (
    <>
      <SelectField
        label={label}
        hideLabel
        value={value ?? ''}
        onChange={({ target }) => (target.value === NEW ? make.mutate() : choose(target.value))}
      >
        <option value="">{none}</option>
        {templates.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
        <option value={NEW}>a new one with the link…</option>
      </SelectField>
      {make.isError && <span className="text-brick">{messageOf(make.error)}</span>}
    </>
  );
}
