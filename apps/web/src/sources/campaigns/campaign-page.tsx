import type { CampaignShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { campaignsQuery } from '../../api/queries';
import { Button } from '../../components/button';
import { Mono, PageHead } from '../../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../../components/status';
import { CampaignCosts } from './campaign-costs';
import { CampaignDialog } from './campaign-dialog';
import { CampaignLinks } from './campaign-links';
import { runsInWords } from './campaigns-page';

/** One campaign: its links with what each brought, and what it cost. */
export function CampaignPage() {
  const { key = '' } = useParams();
  const campaigns = useQuery(campaignsQuery);
  if (campaigns.isPending) return <Loading />;
  if (campaigns.isError) return <Failed error={campaigns.error} retry={() => void campaigns.refetch()} />;
  const campaign = campaigns.data.find((one) => one.key === key);
  if (!campaign)
    return (
      <Empty title="There is no such campaign">
        <Link to="/sources/campaigns" className="underline">
          Look at all campaigns
        </Link>
      </Empty>
    );
  return <OneCampaign key={key} campaign={campaign} />;
}

function OneCampaign({ campaign }: { campaign: CampaignShape }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [isEdited, setEdited] = useState(false);
  const { key, name, code, source, medium, archived, links, cost } = campaign;
  const failed = (error: unknown) => toast.error(messageOf(error));
  const putAway = useMutation({
    mutationFn: () => call('PATCH', `/campaigns/${key}`, { archived: !archived }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['sources', 'campaigns'] }),
    onError: failed,
  });
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/campaigns/${key}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['sources', 'campaigns'] });
      void navigate('/sources/campaigns');
    },
    onError: failed,
  });
  const said = [source, medium].filter(Boolean).join(', ');
  const runs = runsInWords(campaign);
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <p className="text-small text-muted">
        <Link to="/sources" className="hover:underline">
          Sources
        </Link>{' '}
        ·{' '}
        <Link to="/sources/campaigns" className="hover:underline">
          Campaigns
        </Link>
      </p>
      <PageHead
        title={name}
        aside={
          <span>
            links say <Mono>{code}</Mono>
            {said && `, ${said}`}
            {runs !== '–' && `; ${runs}`}
          </span>
        }
      >
        {!links && !cost.length ? (
          <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
            Remove
          </Button>
        ) : (
          <Button disabled={putAway.isPending} onClick={() => putAway.mutate()}>
            {archived ? 'Bring back' : 'Put away'}
          </Button>
        )}
        <Button onClick={() => setEdited(true)}>
          <Pencil className="size-3.5" aria-hidden /> Edit
        </Button>
      </PageHead>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)]">
        <CampaignLinks campaign={campaign} />
        <CampaignCosts campaign={campaign} />
      </div>
      {isEdited && <CampaignDialog campaign={campaign} close={() => setEdited(false)} />}
    </div>
  );
}
