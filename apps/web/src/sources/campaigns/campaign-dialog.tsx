import type { CampaignShape } from '@haycart/api';
import { asRulesWant, USUAL_LINK_RULES } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiError, call } from '../../api/client';
import { linkRulesQuery, peopleQuery } from '../../api/queries';
import { Dialog } from '../../components/dialog';
import { DialogActions } from '../../components/dialog-actions';
import { SelectField, TextField } from '../../components/text-field';

/** Adds or edits a campaign. */
export function CampaignDialog({ campaign, close }: { campaign: CampaignShape | null; close: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const rules = useQuery(linkRulesQuery).data ?? USUAL_LINK_RULES;
  const people = useQuery(peopleQuery).data ?? [];
  const [name, setName] = useState(campaign?.name ?? '');
  const [code, setCode] = useState(campaign?.code ?? null);
  const [source, setSource] = useState(campaign?.source ?? '');
  const [medium, setMedium] = useState(campaign?.medium ?? '');
  const [starts, setStarts] = useState(campaign?.starts ?? '');
  const [ends, setEnds] = useState(campaign?.ends ?? '');
  const [owner, setOwner] = useState(campaign?.owner ?? '');
  const shownCode = code ?? asRulesWant(name, rules);
  const save = useMutation({
    mutationFn: () => {
      const said = {
        name,
        code: shownCode,
        source,
        medium,
        starts: starts || null,
        ends: ends || null,
        owner: owner || null,
      };
      return campaign
        ? call<CampaignShape>('PATCH', `/campaigns/${campaign.key}`, said)
        : call<CampaignShape>('POST', '/campaigns', said);
    },
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['sources'] });
      close();
      if (!campaign) void navigate(`/sources/campaigns/${key}`);
    },
  });
  const wrong = save.error instanceof ApiError ? (save.error.problem.errors ?? []) : [];
  const wrongAt = (at: string) => wrong.find((one) => one.at === at)?.message;
  return (
    <Dialog open close={close} title={campaign ? campaign.name : 'New campaign'}>
      <form
        noValidate
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <TextField
          label="Name"
          placeholder="Spring price list"
          value={name}
          error={wrongAt('/name')}
          onChange={({ target }) => setName(target.value)}
        />
        <TextField
          label="Its links say"
          help="The campaign in the address of a link (utm_campaign)."
          spellCheck={false}
          value={shownCode}
          error={wrongAt('/code')}
          onChange={({ target }) => setCode(target.value)}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            label="Source"
            placeholder="newsletter"
            help="Unless a link or a cost says another."
            value={source}
            onChange={({ target }) => setSource(target.value)}
          />
          <TextField
            label="Medium"
            placeholder="email"
            value={medium}
            onChange={({ target }) => setMedium(target.value)}
          />
          <TextField label="First day" type="date" value={starts} onChange={({ target }) => setStarts(target.value)} />
          <TextField
            label="Last day"
            type="date"
            value={ends}
            error={wrongAt('/ends')}
            onChange={({ target }) => setEnds(target.value)}
          />
        </div>
        <SelectField label="Owner" value={owner} onChange={({ target }) => setOwner(target.value)}>
          <option value="">nobody</option>
          {people.map(({ key, name: called }) => (
            <option key={key} value={key}>
              {called}
            </option>
          ))}
        </SelectField>
        <DialogActions
          error={wrong.length ? null : save.error}
          close={close}
          action={campaign ? 'Save' : 'Add'}
          disabled={!name.trim() || !shownCode.trim() || save.isPending}
        />
      </form>
    </Dialog>
  );
}
