import { CAMPAIGN_PARAMETERS, PARAMETER_LABELS, type CampaignParameter, type LinkRules } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { linkRulesQuery } from '../../api/queries';
import { Sheet } from '../../components/sheet';
import { Failed, Loading, messageOf } from '../../components/status';
import { SelectField, TextArea } from '../../components/text-field';

/** How the parameters of links are written; each change is kept at once. */
export function LinkRulesEditor() {
  const client = useQueryClient();
  const rules = useQuery(linkRulesQuery);
  const save = useMutation({
    mutationFn: (changed: LinkRules) => call<LinkRules>('PUT', '/link-rules', changed),
    onMutate: (changed) => client.setQueryData(linkRulesQuery.queryKey, changed),
    onError: async (error) => {
      toast.error(messageOf(error));
      await client.invalidateQueries({ queryKey: linkRulesQuery.queryKey });
    },
  });
  return (
    <Sheet>
      <section aria-label="Links" className="flex flex-col gap-4 p-4">
        <div>
          <h2 className="text-lg leading-6">How links are written</h2>
          <p className="text-muted">Campaign links follow these rules. Links that break them appear in To decide.</p>
        </div>
        {rules.isPending ? (
          <Loading lines={3} />
        ) : rules.isError ? (
          <Failed error={rules.error} retry={() => void rules.refetch()} />
        ) : (
          <Fields rules={rules.data} change={(change) => save.mutate({ ...rules.data, ...change })} />
        )}
      </section>
    </Sheet>
  );
}

function Fields({ rules, change }: { rules: LinkRules; change: (change: Partial<LinkRules>) => void }) {
  const { required, lowerCase, space, words } = rules;
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <label className="flex h-8 items-center gap-2">
          <input type="checkbox" checked={lowerCase} onChange={() => change({ lowerCase: !lowerCase })} />
          small letters only
        </label>
        <SelectField
          label="Instead of a space"
          className="!w-40"
          value={space}
          onChange={({ target }) => change({ space: target.value as LinkRules['space'] })}
        >
          <option value="-">a hyphen</option>
          <option value="_">an underscore</option>
          <option value="">a space may stand</option>
        </SelectField>
      </div>
      <div className="grid gap-4 md:grid-cols-3 lg:grid-cols-5">
        {CAMPAIGN_PARAMETERS.map((name) => (
          <div key={name} className="flex flex-col gap-2">
            <Words
              name={name}
              words={words[name] ?? []}
              change={(list) => change({ words: { ...words, [name]: list } })}
            />
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={required.includes(name)}
                onChange={() =>
                  change({
                    required: CAMPAIGN_PARAMETERS.filter((one) => required.includes(one) !== (one === name)),
                  })
                }
              />
              every link says it
            </label>
          </div>
        ))}
      </div>
    </>
  );
}

function Words({
  name,
  words,
  change,
}: {
  name: CampaignParameter;
  words: readonly string[];
  change: (words: string[]) => void;
}) {
  return (
    <TextArea
      key={words.join('\n')}
      label={PARAMETER_LABELS[name]}
      placeholder="any word"
      help="Allowed words, one a line."
      rows={4}
      spellCheck={false}
      defaultValue={words.join('\n')}
      onBlur={({ target }) => {
        const list = [...new Set(target.value.split('\n').map((word) => word.trim()))].filter(Boolean);
        if (list.join('\n') !== words.join('\n')) change(list);
      }}
    />
  );
}
