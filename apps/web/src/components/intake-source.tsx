import type { IntakeShape } from '@haycart/api';
import { USUAL_CHANNELS, type IntakeSource } from '@haycart/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { profileQuery } from '../api/queries';
import { Dialog } from './dialog';
import { DialogActions } from './dialog-actions';
import { SelectField, TextField } from './text-field';

type Constant = NonNullable<IntakeSource['constant']>;
type Answers = NonNullable<IntakeSource['answers']>;

const CONSTANTS: readonly [keyof Constant, string, string][] = [
  ['source', 'Source', 'Growers Weekly'],
  ['medium', 'Medium', 'partner'],
  ['campaign', 'Campaign', ''],
];
const ANSWERS: readonly [keyof Answers, string][] = [
  ['said', 'How they heard of us, as they say'],
  ['utm_source', 'Source'],
  ['utm_medium', 'Medium'],
  ['utm_campaign', 'Campaign'],
];

/** Sets the source of an intake's submissions, and the answers that tell it. */
export function IntakeSourceDialog({
  intake,
  save,
  close,
}: {
  intake: IntakeShape;
  save: (source: IntakeSource) => Promise<unknown>;
  close: () => void;
}) {
  const fields = useQuery(profileQuery(intake.key)).data?.fields ?? [];
  const [constant, setConstant] = useState<Constant>(intake.source.constant ?? {});
  const [always, setAlways] = useState(intake.source.always ?? false);
  const [answers, setAnswers] = useState<Answers>(intake.source.answers ?? {});
  const saving = useMutation({
    mutationFn: () => {
      const filled = withoutBlanks(constant);
      const read = withoutBlanks(answers);
      return save({
        ...(filled ? { constant: filled } : {}),
        ...(filled && always ? { always } : {}),
        ...(read ? { answers: read } : {}),
      });
    },
    onSuccess: close,
  });
  return (
    <Dialog open close={close} title={`Source of ${intake.name}`}>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          saving.mutate();
        }}
      >
        <fieldset className="flex flex-col gap-3">
          <legend className="mb-1 font-semibold">Source of everything that arrives here</legend>
          <div className="grid gap-3 sm:grid-cols-2">
            {CONSTANTS.map(([part, label, placeholder]) => (
              <TextField
                key={part}
                label={label}
                placeholder={placeholder}
                maxLength={200}
                value={constant[part] ?? ''}
                onChange={({ target }) => setConstant({ ...constant, [part]: target.value })}
              />
            ))}
            <TextField
              label="Channel"
              placeholder="as the rules say"
              list="channels-known"
              maxLength={200}
              value={constant.channel ?? ''}
              onChange={({ target }) => setConstant({ ...constant, channel: target.value })}
            />
            <datalist id="channels-known">
              {USUAL_CHANNELS.map((channel) => (
                <option key={channel} value={channel} />
              ))}
            </datalist>
          </div>
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={always} onChange={() => setAlways(!always)} />
            use it even when a link or a site tells another source
          </label>
        </fieldset>
        <fieldset className="flex flex-col gap-3">
          <legend className="mb-1 font-semibold">Answers that contain the source</legend>
          <div className="grid gap-3 sm:grid-cols-2">
            {ANSWERS.map(([part, label]) => (
              <SelectField
                key={part}
                label={label}
                value={answers[part] ?? ''}
                onChange={({ target }) => setAnswers({ ...answers, [part]: target.value })}
              >
                <option value="">no answer</option>
                {answers[part] && !fields.some(({ key }) => key === answers[part]) && (
                  <option value={answers[part]}>{answers[part]}</option>
                )}
                {fields.map(({ key, label: called }) => (
                  <option key={key} value={key}>
                    {called}
                  </option>
                ))}
              </SelectField>
            ))}
          </div>
        </fieldset>
        <DialogActions
          error={saving.error}
          close={close}
          action="Save"
          disabled={saving.isPending}
          note="It holds for what arrives from now on."
        />
      </form>
    </Dialog>
  );
}

/** The texts that are filled in; undefined when none is. */
function withoutBlanks<Texts extends Partial<Record<string, string>>>(texts: Texts): Texts | undefined {
  const filled = Object.entries(texts).flatMap(([name, text]) => (text?.trim() ? [[name, text.trim()]] : []));
  return filled.length ? (Object.fromEntries(filled) as Texts) : undefined;
}
