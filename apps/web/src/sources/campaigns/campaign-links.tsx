import type { CampaignLink, CampaignShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Copy, Plus, QrCode, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { campaignLinksQuery } from '../../api/queries';
import { Button, IconButton } from '../../components/button';
import { count } from '../../components/format';
import { sayDone } from '../../components/say-done';
import { Sheet } from '../../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../../components/status';
import { Head, Heads } from '../../components/heads';
import { LinkBuilder } from './link-builder';
import { QrDialog } from './qr-dialog';

/** The links of a campaign, each with what it brought. */
export function CampaignLinks({ campaign }: { campaign: CampaignShape }) {
  const client = useQueryClient();
  const links = useQuery(campaignLinksQuery(campaign.key));
  const [isBuilding, setBuilding] = useState(false);
  const [coded, setCoded] = useState<CampaignLink | null>(null);
  const again = () => client.invalidateQueries({ queryKey: ['sources', 'campaigns'] });
  const restore = useMutation({
    mutationFn: ({ address, parameters }: CampaignLink) =>
      call('POST', `/campaigns/${campaign.key}/links`, {
        links: [{ page: pageBehind(address, parameters), parameters }],
      }),
    onSuccess: again,
    onError: (error) => toast.error(messageOf(error)),
  });
  const remove = useMutation({
    mutationFn: ({ id }: CampaignLink) => call('DELETE', `/campaigns/${campaign.key}/links/${id}`),
    onSuccess: async (_, link) => {
      await again();
      sayDone(`The link ${saysOf(link)} was removed.`, { label: 'Undo', act: () => restore.mutate(link) });
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <Sheet>
      <header className="flex items-center gap-3 px-3.5 py-2.5">
        <h2 className="mr-auto text-base">Links</h2>
        <Button look="main" onClick={() => setBuilding(true)}>
          <Plus className="size-4" aria-hidden /> Make links
        </Button>
      </header>
      {links.isPending ? (
        <Loading lines={3} />
      ) : links.isError ? (
        <Failed error={links.error} retry={() => void links.refetch()} />
      ) : links.data.length ? (
        <table className="w-full table-fixed border-collapse" aria-label="Links">
          <Heads>
            <Head>Link</Head>
            <Head end look="w-28">
              Submissions
            </Head>
            <Head end look="w-16 max-sm:hidden">
              Deals
            </Head>
            <Head end look="w-16 max-sm:hidden">
              Won
            </Head>
            <Head look="w-28">
              <span className="sr-only">What can be done</span>
            </Head>
          </Heads>
          <tbody>
            {links.data.map((link) => (
              <tr key={link.id} className="h-12 border-b border-hair last:border-0">
                <td className="truncate px-3.5" title={link.address}>
                  <span className="block truncate font-semibold">{saysOf(link)}</span>
                  <span className="block truncate text-small text-muted">
                    {pageOf(link.address)}
                    {links.data.some((other) => other !== link && saysOf(other) === saysOf(link)) &&
                      ' (says the same as another: counted together)'}
                  </span>
                </td>
                <td className="tabular px-2 text-right">{count(link.submissions)}</td>
                <td className="tabular px-2 text-right max-sm:hidden">{count(link.deals)}</td>
                <td className="tabular px-2 text-right max-sm:hidden">{count(link.wonDeals)}</td>
                <td className="px-2 text-right whitespace-nowrap">
                  <IconButton
                    label={`Copy the link ${saysOf(link)}`}
                    className="!size-7"
                    onClick={() => copy(link.address)}
                  >
                    <Copy className="size-3.5" aria-hidden />
                  </IconButton>
                  <IconButton label={`QR code of ${saysOf(link)}`} className="!size-7" onClick={() => setCoded(link)}>
                    <QrCode className="size-3.5" aria-hidden />
                  </IconButton>
                  <IconButton
                    label={`Remove the link ${saysOf(link)}`}
                    className="!size-7 text-muted"
                    onClick={() => remove.mutate(link)}
                  >
                    <Trash2 className="size-3.5" aria-hidden />
                  </IconButton>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <Empty title="No links yet">
          A link says where it stands: in which newsletter, on whose page. What comes by it is counted here.
        </Empty>
      )}
      {isBuilding && <LinkBuilder campaign={campaign} close={() => setBuilding(false)} />}
      {coded && <QrDialog link={coded} name={saysOf(coded)} close={() => setCoded(null)} />}
    </Sheet>
  );
}

function copy(address: string): void {
  void navigator.clipboard.writeText(address).then(
    () => toast('Copied the link.'),
    () => toast.error('The browser does not let this page copy.'),
  );
}

/** The parameters of a link that differ from others of its campaign. */
function saysOf({ parameters: { utm_source, utm_medium, utm_content, utm_term } }: CampaignLink): string {
  return [utm_source, utm_medium, utm_content, utm_term].filter(Boolean).join(', ') || 'without a source';
}

/** The page to which a link leads, without what the link says. */
function pageBehind(address: string, parameters: CampaignLink['parameters']): string {
  const url = new URL(address);
  for (const name of Object.keys(parameters)) url.searchParams.delete(name);
  return url.href;
}

function pageOf(address: string): string {
  const { host, pathname } = new URL(address);
  return `${host}${pathname}`;
}
