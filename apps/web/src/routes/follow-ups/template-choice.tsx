import type { MailTemplate } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { newTemplate, type TemplateStarter } from '../../api/new-template';
import { messageOf } from '../../components/status';
import { SelectField } from '../../components/text-field';

const NEW = '*new';

/** By which template a mail is written: one that there is, or a new one. */
export function TemplateChoice({
  label,
  value,
  templates = [],
  none = 'choose a template',
  starter,
  starts,
  choose,
}: {
  label: string;
  value: string | undefined;
  templates: readonly MailTemplate[] | undefined;
  /** What choosing none is called. */
  none?: string;
  /** What a new one says, and what choosing that is called. */
  starter: TemplateStarter;
  starts: string;
  choose: (key: string) => void;
}) {
  const client = useQueryClient();
  const make = useMutation({
    mutationFn: () => newTemplate(starter, templates),
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
        <option value={NEW}>{starts}</option>
      </SelectField>
      {make.isError && <span className="text-brick">{messageOf(make.error)}</span>}
    </>
  );
}
