import type { ChannelRulesShape } from '@haycart/api';
import type { ChannelRules, Destination } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../../api/client';
import { channelRulesQuery, destinationQuery } from '../../api/queries';
import { Button } from '../../components/button';
import { Failed, Loading, messageOf } from '../../components/status';
import { UndoButtons } from '../../components/undo-buttons';
import { useHistory } from '../../state/use-history';
import { SetUpPage } from '../set-up-page';
import { ChannelRulesEditor } from './channel-rules-editor';
import { JoinedNamesEditor } from './joined-names-editor';
import { LinkRulesEditor } from './link-rules-editor';
import { PastSources } from './past-sources';

const ABOUT = 'how channels are told apart, and which names are one source';

/** Where somebody came from: the rules by which channels are told apart, and sources that count under one name. */
export function SourcesSetUp() {
  const rules = useQuery(channelRulesQuery);
  const destination = useQuery(destinationQuery);
  if (rules.data && destination.data) return <Rules saved={rules.data} destination={destination.data} />;
  const failed = rules.isError ? rules : destination;
  return (
    <SetUpPage about={ABOUT}>
      {failed.isError ? <Failed error={failed.error} retry={() => void failed.refetch()} /> : <Loading lines={8} />}
    </SetUpPage>
  );
}

function Rules({ saved, destination }: { saved: ChannelRulesShape; destination: Destination }) {
  const client = useQueryClient();
  const history = useHistory<ChannelRules>({ rules: saved.rules, names: saved.names, apart: saved.apart ?? [] });
  const { value: rules, change } = history;
  const isSaved = same(rules, saved);
  const save = useMutation({
    mutationFn: () => call<ChannelRulesShape>('PUT', '/channel-rules', rules),
    onSuccess: async (kept) => {
      client.setQueryData(channelRulesQuery.queryKey, kept);
      await client.invalidateQueries({ queryKey: ['sources', 'moves'] });
      toast('Saved. What comes from now on goes by these rules.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  return (
    <SetUpPage
      about={ABOUT}
      action={
        <>
          <UndoButtons history={history} />
          <Button look="main" disabled={isSaved || save.isPending} onClick={() => save.mutate()}>
            {isSaved ? 'Saved' : 'Save'}
          </Button>
        </>
      }
    >
      <ChannelRulesEditor rules={rules.rules} destination={destination} history={history} change={change} />
      <div className="grid gap-5 lg:grid-cols-2">
        <JoinedNamesEditor rules={rules} alike={saved.alike} change={change} />
        <PastSources rules={rules} isSaved={isSaved} />
      </div>
      <LinkRulesEditor />
    </SetUpPage>
  );
}

function same(one: ChannelRules, other: ChannelRules): boolean {
  return JSON.stringify(partsOf(one)) === JSON.stringify(partsOf(other));
}

function partsOf({ rules, names, apart = [] }: ChannelRules) {
  return [rules, names, apart];
}
