import type { CampaignLink, CampaignShape } from '@haycart/api';
import {
  asRulesWant,
  buildLink,
  CAMPAIGN_PARAMETERS,
  checkLink,
  counted,
  linksFromRows,
  PARAMETER_LABELS,
  USUAL_LINK_RULES,
  type CampaignParameter,
  type LinkParameters,
  type LinkRules,
  type LinkWish,
} from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { campaignLinksQuery, linkRulesQuery } from '../../api/queries';
import { Dialog } from '../../components/dialog';
import { DialogActions } from '../../components/dialog-actions';
import { SelectField, TextArea, TextField } from '../../components/text-field';

const ASKED = CAMPAIGN_PARAMETERS.filter((name) => name !== 'utm_campaign');
type Said = Record<CampaignParameter, string>;

/** Creates links that follow the link rules: one by its parts, or many from pasted rows. */
export function LinkBuilder({ campaign, close }: { campaign: CampaignShape; close: () => void }) {
  const client = useQueryClient();
  const rules = useQuery(linkRulesQuery).data ?? USUAL_LINK_RULES;
  const [isMany, setMany] = useState(false);
  const [page, setPage] = useState('');
  const [said, setSaid] = useState<Said>({
    utm_source: campaign.source,
    utm_medium: campaign.medium,
    utm_campaign: campaign.code,
    utm_term: '',
    utm_content: '',
  });
  const [rows, setRows] = useState('');
  const read = isMany ? linksFromRows(rows) : [{ page, parameters: said }];
  const wishes = typeof read === 'string' ? [] : read.map((wish) => ofCampaign(wish, campaign));
  const checked = wishes.map((wish) => checkWish(wish, rules));
  const wrong = checked.flatMap(({ problems }, index) => problems.map((text) => ({ row: index + 1, text })));
  const make = useMutation({
    mutationFn: () => call<CampaignLink[]>('POST', `/campaigns/${campaign.key}/links`, { links: wishes }),
    onSuccess: async (links) => {
      client.setQueryData(campaignLinksQuery(campaign.key).queryKey, links);
      await client.invalidateQueries({ queryKey: ['sources', 'campaigns'] });
      toast(wishes.length === 1 ? 'The link is made.' : `${counted(wishes.length, 'link')} are made.`);
      close();
    },
  });
  return (
    <Dialog open close={close} wide title={`Links of ${campaign.name}`}>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <div role="radiogroup" aria-label="How many" className="flex gap-5">
          {[false, true].map((many) => (
            <label key={String(many)} className="flex items-center gap-2">
              <input type="radio" name="many" checked={isMany === many} onChange={() => setMany(many)} />
              {many ? 'many, from rows' : 'one'}
            </label>
          ))}
        </div>
        {isMany ? (
          <>
            <TextArea
              label="Rows"
              help="A page, source, medium, content and term in each; or with a row of headings in any order. What is left out is what the campaign says."
              rows={7}
              spellCheck={false}
              placeholder={
                'quillfern.example/prices\tnewsletter\temail\nquillfern.example/prices\tGrowers Weekly\tbanner\ttop'
              }
              value={rows}
              error={typeof read === 'string' ? read : undefined}
              onChange={({ target }) => setRows(target.value)}
            />
            {wishes.length > 0 && (
              <p className="text-muted" role="status">
                {wrong.length
                  ? `${counted(wishes.length, 'link')}, ${counted(new Set(wrong.map(({ row }) => row)).size, 'of them', 'of them')} against the rules`
                  : `${counted(wishes.length, 'link')} as the rules want them`}
              </p>
            )}
            {wrong.length > 0 && (
              <ul className="max-h-32 overflow-y-auto text-small text-brick">
                {wrong.slice(0, 50).map(({ row, text }) => (
                  <li key={`${row} ${text}`}>
                    Row {row}: {text}
                  </li>
                ))}
              </ul>
            )}
          </>
        ) : (
          <>
            <TextField
              label="Page it leads to"
              placeholder="https://quillfern.example/prices"
              spellCheck={false}
              value={page}
              error={page.trim() && checked[0]?.pageProblem ? checked[0].pageProblem : undefined}
              onChange={({ target }) => setPage(target.value)}
            />
            <div className="grid gap-4 sm:grid-cols-2">
              {ASKED.map((name) => (
                <Said
                  key={name}
                  name={name}
                  rules={rules}
                  value={said[name]}
                  problem={checked[0]?.at[name]}
                  change={(text) => setSaid({ ...said, [name]: text })}
                />
              ))}
            </div>
            {checked[0]?.address && (
              <p className="rounded border border-line bg-ground px-3 py-2 font-mono text-[12.5px] break-all">
                {checked[0].address}
              </p>
            )}
          </>
        )}
        <DialogActions
          error={make.error}
          close={close}
          action={isMany ? `Make ${counted(wishes.length, 'link')}` : 'Make the link'}
          disabled={!wishes.length || wrong.length > 0 || make.isPending}
          note={isMany && wrong.length ? <Mend rules={rules} rows={rows} mend={setRows} /> : undefined}
        />
      </form>
    </Dialog>
  );
}

/** One parameter of a link: free text, or one of the allowed words. */
function Said({
  name,
  rules,
  value,
  problem,
  change,
}: {
  name: CampaignParameter;
  rules: LinkRules;
  value: string;
  problem: string | undefined;
  change: (text: string) => void;
}) {
  const words = rules.words[name] ?? [];
  const isNeeded = rules.required.includes(name);
  const label = `${PARAMETER_LABELS[name]}${isNeeded ? '' : ' (if any)'}`;
  if (words.length)
    return (
      <SelectField
        label={label}
        value={words.includes(value) ? value : ''}
        onChange={({ target }) => change(target.value)}
      >
        <option value="">{isNeeded ? 'choose' : 'nothing'}</option>
        {words.map((word) => (
          <option key={word} value={word}>
            {word}
          </option>
        ))}
      </SelectField>
    );
  return (
    <TextField
      label={label}
      spellCheck={false}
      value={value}
      error={value.trim() ? problem : undefined}
      onChange={({ target }) => change(target.value)}
      onBlur={() => change(asRulesWant(value, rules))}
    />
  );
}

/** Rewrites all cells except pages to follow the link rules. */
function Mend({ rules, rows, mend }: { rules: LinkRules; rows: string; mend: (rows: string) => void }) {
  const mended = rows
    .split('\n')
    .map((row) =>
      row
        .split('\t')
        .map((cell, index) => (index === 0 ? cell : asRulesWant(cell, rules)))
        .join('\t'),
    )
    .join('\n');
  if (mended === rows) return null;
  return (
    <button type="button" className="text-slate hover:underline" onClick={() => mend(mended)}>
      Write them as the rules want
    </button>
  );
}

function ofCampaign({ page, parameters }: LinkWish, { code, source, medium }: CampaignShape): LinkWish {
  const said: LinkParameters = {
    utm_source: parameters.utm_source || source,
    utm_medium: parameters.utm_medium || medium,
    utm_campaign: code,
    utm_term: parameters.utm_term ?? '',
    utm_content: parameters.utm_content ?? '',
  };
  return { page, parameters: said };
}

function checkWish({ page, parameters }: LinkWish, rules: LinkRules) {
  const built = buildLink(page, parameters);
  const problems = checkLink(parameters, rules);
  return {
    address: built.ok ? built.address : null,
    pageProblem: built.ok ? undefined : built.text,
    at: Object.fromEntries(problems.map(({ at = '', text }) => [at.slice(1), text])) as Partial<
      Record<CampaignParameter, string>
    >,
    problems: [...(built.ok ? [] : [built.text]), ...problems.map(({ text }) => text)],
  };
}
