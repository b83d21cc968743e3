import type { IdentityReport } from '@haycart/api';
import { ruleFor, SURVIVORSHIP_RULES, SURVIVORSHIP_WORDS, type SurvivorshipRule } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { fieldsQuery } from '../api/queries';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { SelectField } from '../components/text-field';
import { TrustedSources } from './trusted-sources';

/** What is held to be one mailbox, and which value survives when two records become one. */
export function RecognitionSettings({ report: { settings, kind } }: { report: IdentityReport }) {
  const client = useQueryClient();
  const fields = useQuery(fieldsQuery);
  const save = useMutation({
    mutationFn: (change: Partial<IdentityReport['settings']>) => call('PUT', '/identity/settings', change),
    onSuccess: () => client.invalidateQueries({ queryKey: ['identity'] }),
    onError: (error) => toast.error(messageOf(error)),
  });
  const { mailboxes, merging } = settings;
  const own = (fields.data ?? []).filter(
    ({ record, type, kept, key }) => record === kind && type !== 'several-of' && !kept && key !== 'full_name',
  );
  return (
    <Sheet className="flex flex-col gap-3 p-4">
      <h2 className="text-base">What counts as the same, and what survives</h2>
      <Tick
        label="ada+news@… is the mailbox ada@…"
        checked={mailboxes.tags}
        set={(tags) => save.mutate({ mailboxes: { ...mailboxes, tags } })}
      />
      <Tick
        label="a.da@… is the mailbox ada@… where the mail service says so"
        checked={mailboxes.points}
        set={(points) => save.mutate({ mailboxes: { ...mailboxes, points } })}
      />
      <details>
        <summary className="cursor-pointer font-semibold">Which value survives a merge, field by field</summary>
        <p className="my-1 text-small text-muted">Lists, such as all e-mails and tags, are always kept whole.</p>
        <ul className="flex flex-col">
          {own.map((field) => (
            <li key={field.key} className="flex items-center gap-3 border-b border-hair py-1 last:border-0">
              <span className="min-w-0 flex-1 truncate">{field.label}</span>
              <span className="w-[210px]">
                <SelectField
                  label={`Which ${field.label} survives`}
                  hideLabel
                  value={ruleFor(field, merging)}
                  onChange={({ target }) =>
                    save.mutate({
                      merging: {
                        ...merging,
                        fields: { ...merging.fields, [field.key]: target.value as SurvivorshipRule },
                      },
                    })
                  }
                >
                  {SURVIVORSHIP_RULES.filter(
                    (rule) => rule !== 'keep-all' && (rule !== 'only-if-all' || field.type === 'yes-no'),
                  ).map((rule) => (
                    <option key={rule} value={rule}>
                      {SURVIVORSHIP_WORDS[rule]}
                    </option>
                  ))}
                </SelectField>
              </span>
            </li>
          ))}
        </ul>
        <TrustedSources
          trusted={merging.trusted}
          change={(trusted) => save.mutate({ merging: { ...merging, trusted } })}
        />
      </details>
    </Sheet>
  );
}

function Tick({ label, checked, set }: { label: string; checked: boolean; set: (checked: boolean) => void }) {
  return (
    <label className="flex cursor-pointer items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-green"
        checked={checked}
        onChange={({ target }) => set(target.checked)}
      />
      {label}
    </label>
  );
}
