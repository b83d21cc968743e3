import type { IntakeShape } from '@haycart/api';
import { BUILT_IN_FIELDS, questionFor, type FormDefinition } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../api/client';
import { Dialog } from '../components/dialog';
import { DialogActions } from '../components/dialog-actions';
import { TextField } from '../components/text-field';

/** Makes a form that asks for name and e-mail, and leads to where it is built. */
export function NewForm({ close }: { close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const make = useMutation({
    mutationFn: () => call<IntakeShape>('POST', '/forms', { name: name.trim(), form: firstForm(name.trim()) }),
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['submissions', 'intake-lines'] });
      void navigate(`/intakes/${key}/form`);
    },
  });
  return (
    <Dialog
      open
      close={close}
      title="New form"
      description="It begins with name and e-mail, and nobody sees it before you publish it."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) make.mutate();
        }}
      >
        <TextField
          label="Name"
          help="For you and your colleagues; visitors read the title."
          placeholder="Site survey request"
          autoFocus
          maxLength={120}
          value={name}
          onChange={({ target }) => setName(target.value)}
        />
        <DialogActions error={make.error} close={close} action="Make it" disabled={!name.trim() || make.isPending} />
      </form>
    </Dialog>
  );
}

function firstForm(title: string): FormDefinition {
  const asks = (key: string) =>
    questionFor(
      BUILT_IN_FIELDS.find((field) => field.record === 'contact' && field.key === key)!,
      key,
    );
  return {
    format: 'haycart.form/1',
    title,
    language: 'en-GB',
    button: 'Send',
    after: { do: 'thank', title: 'Thank you', text: 'We have it, and will write to you soon.' },
    items: [
      { ...asks('first_name'), required: true },
      { ...asks('last_name'), required: true },
      { ...asks('email'), required: true },
    ],
  };
}
