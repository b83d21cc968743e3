import type { ChannelShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, Send, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../api/client';
import { channelsQuery } from '../api/queries';
import { AskOnce } from '../components/ask-once';
import { Button, IconButton } from '../components/button';
import { Mono, Sheet } from '../components/sheet';
import { Empty, Failed, Loading, messageOf } from '../components/status';
import { ChannelDialog } from './channel-dialog';
import { SetUpPage } from './set-up-page';
import { TextGateway } from './text-gateway';

const BY = { chat: 'chat', text: 'text message' } as const;

/** Where messages go that are for no one person, and what sends text messages. */
export function ChannelsSetUp() {
  const channels = useQuery(channelsQuery);
  const [edited, setEdited] = useState<ChannelShape | 'new' | null>(null);
  const [removed, setRemoved] = useState<ChannelShape | null>(null);
  return (
    <SetUpPage
      about="where follow-ups tell somebody"
      action={
        <Button look="main" onClick={() => setEdited('new')}>
          <Plus className="size-4" aria-hidden /> New channel
        </Button>
      }
    >
      <Sheet>
        {channels.isPending ? (
          <Loading lines={4} />
        ) : channels.isError ? (
          <Failed error={channels.error} retry={() => void channels.refetch()} />
        ) : channels.data.length ? (
          <table className="w-full table-fixed text-left">
            <thead>
              <tr className="h-8 border-b border-line text-small text-muted">
                <th scope="col" className="px-3 font-semibold">
                  Name
                </th>
                <th scope="col" className="w-32 px-3 font-semibold max-sm:hidden">
                  By
                </th>
                <th scope="col" className="px-3 font-semibold">
                  Reached at
                </th>
                <th scope="col" className="w-40 px-3 max-sm:w-24">
                  <span className="sr-only">What can be done</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {channels.data.map((channel) => (
                <Line
                  key={channel.key}
                  channel={channel}
                  edit={() => setEdited(channel)}
                  remove={() => setRemoved(channel)}
                />
              ))}
            </tbody>
          </table>
        ) : (
          <Empty title="No channels yet">
            A channel is a chat or a phone that several read. A route tells it by a follow-up: open a route,{' '}
            <i>Follow up</i>, <i>Add a follow-up</i>, <i>Message</i>.
          </Empty>
        )}
      </Sheet>
      <TextGateway />
      {edited && <ChannelDialog channel={edited === 'new' ? null : edited} close={() => setEdited(null)} />}
      {removed && <RemoveChannel channel={removed} close={() => setRemoved(null)} />}
    </SetUpPage>
  );
}

function Line({
  channel: { key, name, by, to },
  edit,
  remove,
}: {
  channel: ChannelShape;
  edit: () => void;
  remove: () => void;
}) {
  const test = useMutation({
    mutationFn: () => call('POST', `/channels/${key}/test`),
    onSuccess: () => toast(`A test message came to ${name}.`),
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <tr className="h-10 border-b border-hair last:border-0">
      <td className="px-3">
        <button type="button" onClick={edit} className="text-left font-semibold hover:underline">
          {name}
        </button>
      </td>
      <td className="px-3 max-sm:hidden">{BY[by]}</td>
      <td className="truncate px-3" title={to}>
        <Mono>{to}</Mono>
      </td>
      <td className="px-3">
        <span className="flex items-center justify-end gap-1">
          <Button
            className="!h-7"
            onClick={() => test.mutate()}
            disabled={test.isPending}
            aria-label={`Send a test to ${name}`}
          >
            <Send className="size-3.5" aria-hidden />{' '}
            <span className="max-sm:sr-only">{test.isPending ? 'Sending …' : 'Test'}</span>
          </Button>
          <IconButton label={`Remove ${name}`} className="!size-7 text-muted" onClick={remove}>
            <Trash2 className="size-3.5" aria-hidden />
          </IconButton>
        </span>
      </td>
    </tr>
  );
}

function RemoveChannel({ channel: { key, name }, close }: { channel: ChannelShape; close: () => void }) {
  const client = useQueryClient();
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/channels/${key}`),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['channels'] });
      close();
    },
  });
  return (
    <AskOnce
      title={`Remove ${name}?`}
      loses="Messages to it that wait, and those of routes that still name it, are given up into To decide. Its address is not kept."
      action="Remove"
      doing={remove}
      close={close}
    />
  );
}
