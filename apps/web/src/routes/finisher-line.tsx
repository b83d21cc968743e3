import type { ProfileFieldShape } from '@haycart/api';
import {
  finisherNamed,
  finisherParameters,
  type FieldDefinition,
  type FinisherUse,
  type JsonValue,
} from '@haycart/core';
import { ArrowUp, X } from 'lucide-react';
import { useMemo } from 'react';
import { IconButton } from '../components/button';
import { SelectField, TextField } from '../components/text-field';
import { TranslationTable } from './translation-table';

/** One finisher of a value: its parameters, and what it makes of the sample. */
export function FinisherLine({
  use,
  step,
  field,
  incoming,
  answers,
  change,
  remove,
  up,
}: {
  use: FinisherUse;
  /** What it did with the sample, where it was worked out. */
  step: { before: string; after: string } | undefined;
  field: FieldDefinition | undefined;
  incoming: readonly ProfileFieldShape[];
  /** The answers that feed the value, by key. */
  answers: readonly string[];
  change: (use: FinisherUse) => void;
  remove: () => void;
  up: (() => void) | undefined;
}) {
  const finisher = finisherNamed(use.use);
  const parameters = useMemo(() => (finisher ? finisherParameters(finisher) : []), [finisher]);
  const label = finisher?.label ?? use.use;
  const put = (name: string, value: JsonValue | undefined) => {
    const { [name]: _, ...others } = use.with ?? {};
    change({ ...use, with: value === undefined ? others : { ...others, [name]: value } });
  };
  return (
    <li className="rounded border border-hair px-2 py-1.5">
      <div className="flex items-center gap-1">
        <b className="min-w-0 flex-1 font-semibold" title={finisher?.description}>
          {label}
        </b>
        {up && (
          <IconButton label={`Move ${label} up`} onClick={up} className="!size-6">
            <ArrowUp className="size-3.5" aria-hidden />
          </IconButton>
        )}
        <IconButton label={`Remove ${label}`} onClick={remove} className="!size-6">
          <X className="size-3.5" aria-hidden />
        </IconButton>
      </div>
      {step && <BeforeAfter {...step} />}
      <div className="flex flex-col gap-2">
        {parameters.map(({ name, title, kind, choices, otherwise }) => {
          const value = use.with?.[name] ?? otherwise;
          switch (kind) {
            case 'choice':
              return (
                <SelectField
                  key={name}
                  label={title}
                  value={String(value ?? choices[0])}
                  onChange={({ target }) => put(name, target.value)}
                >
                  {choices.map((choice) => (
                    <option key={choice}>{choice}</option>
                  ))}
                </SelectField>
              );
            case 'answer':
              return (
                <SelectField
                  key={name}
                  label={title}
                  value={String(value ?? '')}
                  onChange={({ target }) => put(name, target.value || undefined)}
                >
                  <option value="">none</option>
                  {incoming.map(({ key, label: words }) => (
                    <option key={key} value={key}>
                      {words}
                    </option>
                  ))}
                </SelectField>
              );
            case 'table':
              return (
                <TranslationTable
                  key={name}
                  table={(use.with?.[name] ?? {}) as Record<string, string>}
                  seen={incoming.filter(({ key }) => answers.includes(key))}
                  field={field}
                  change={(table) => put(name, table)}
                />
              );
            case 'number':
              return (
                <TextField
                  key={name}
                  label={title}
                  inputMode="numeric"
                  value={String(value ?? '')}
                  onChange={({ target }) =>
                    put(name, target.value === '' ? undefined : Number(target.value.replace(/\D/g, '')))
                  }
                />
              );
            default:
              return use.use === 'translate' && name === 'option' ? (
                use.with?.otherwise === 'use the option' && (
                  <SelectField
                    key={name}
                    label={title}
                    value={String(value ?? '')}
                    onChange={({ target }) => put(name, target.value || undefined)}
                  >
                    <option value="">Choose</option>
                    {field?.options?.map(({ key, label: words }) => (
                      <option key={key} value={key}>
                        {words}
                      </option>
                    ))}
                  </SelectField>
                )
              ) : (
                <TextField
                  key={name}
                  label={title}
                  value={String(value ?? '')}
                  spellCheck={false}
                  onChange={({ target }) => put(name, target.value || undefined)}
                />
              );
          }
        })}
      </div>
    </li>
  );
}

function BeforeAfter({ before, after }: { before: string; after: string }) {
  const shown = (text: string) => (text === '' ? 'blank' : text);
  return (
    <p className="mb-1 truncate text-small text-muted" title={`${shown(before)} → ${shown(after)}`}>
      {before === after ? (
        `“${shown(before)}” stays`
      ) : (
        <>
          {shown(before)} → <b className="font-semibold text-ink">{shown(after)}</b>
        </>
      )}
    </p>
  );
}
