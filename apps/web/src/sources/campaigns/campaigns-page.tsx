import type { CampaignShape } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { campaignsQuery, peopleQuery } from '../../api/queries';
import { Button } from '../../components/button';
import { count, money, shortDay } from '../../components/format';
import { Mono, PageHead, Sheet } from '../../components/sheet';
import { Empty, Failed, Loading } from '../../components/status';
import { Head, Heads } from '../../components/heads';
import { CampaignDialog } from './campaign-dialog';
import { CostsFromFile } from './costs-from-file';

/** The register of campaigns: what each is called, what its links say, when it runs and what it cost. */
export function CampaignsPage() {
  const campaigns = useQuery(campaignsQuery);
  const people = useQuery(peopleQuery).data ?? [];
  const [isNew, setNew] = useState(false);
  if (campaigns.isPending) return <Loading />;
  if (campaigns.isError) return <Failed error={campaigns.error} retry={() => void campaigns.refetch()} />;
  return (
    <div className="h-full overflow-y-auto p-5 max-sm:p-3">
      <p className="text-small text-muted">
        <Link to="/sources" className="hover:underline">
          Sources
        </Link>
      </p>
      <PageHead title="Campaigns" aside="what links say, and what was spent">
        <CostsFromFile campaigns={campaigns.data} />
        <Button look="main" onClick={() => setNew(true)}>
          <Plus className="size-4" aria-hidden /> New campaign
        </Button>
      </PageHead>
      <Sheet>
        {campaigns.data.length ? (
          <table className="w-full table-fixed border-collapse" aria-label="Campaigns">
            <Heads>
              <Head>Name</Head>
              <Head look="w-56 max-md:hidden">Links say</Head>
              <Head look="w-48 max-lg:hidden">Runs</Head>
              <Head look="w-40 max-lg:hidden">Owner</Head>
              <Head end look="w-16 max-sm:hidden">
                Links
              </Head>
              <Head end look="w-36">
                Cost
              </Head>
            </Heads>
            <tbody>
              {campaigns.data.map((campaign) => (
                <tr
                  key={campaign.key}
                  className={`h-10 border-b border-hair last:border-0 ${campaign.archived ? 'text-muted' : ''}`}
                >
                  <th scope="row" className="truncate px-3.5 text-left font-semibold">
                    <Link to={`/sources/campaigns/${campaign.key}`} className="hover:underline">
                      {campaign.name}
                    </Link>
                    {campaign.archived && <span className="ml-2 font-normal">put away</span>}
                  </th>
                  <td className="truncate px-2 max-md:hidden">
                    <Mono>{campaign.code}</Mono>
                  </td>
                  <td className="truncate px-2 text-muted max-lg:hidden">{runsInWords(campaign)}</td>
                  <td className="truncate px-2 text-muted max-lg:hidden">
                    {people.find(({ key }) => key === campaign.owner)?.name ?? '–'}
                  </td>
                  <td className="tabular px-2 text-right max-sm:hidden">{count(campaign.links)}</td>
                  <td className="tabular px-3.5 text-right whitespace-nowrap">
                    {campaign.cost.length ? (
                      campaign.cost.map(money).join(' + ')
                    ) : (
                      <span className="text-faint">–</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <Empty title="No campaigns yet">
            A campaign has a name, what its links say, and what it cost. Then Sources tells what each of its deals cost.
          </Empty>
        )}
      </Sheet>
      {isNew && <CampaignDialog campaign={null} close={() => setNew(false)} />}
    </div>
  );
}

/** `1 Mar to 31 May 2026` */
export function runsInWords({ starts, ends }: Pick<CampaignShape, 'starts' | 'ends'>): string {
  const day = (text: string) => `${shortDay(text)} ${text.slice(0, 4)}`;
  if (starts && ends)
    return `${starts.slice(0, 4) === ends.slice(0, 4) ? shortDay(starts) : day(starts)} to ${day(ends)}`;
  if (starts) return `from ${day(starts)}`;
  return ends ? `until ${day(ends)}` : '–';
}
