import type { RouteShape } from '@haycart/api';
import {
  capitalised,
  CONFIRM_STARTER,
  effectOf,
  holdRuleOf,
  isConfirmation,
  type ConfirmationHold,
  type Destination,
  type FollowUp,
  type RouteDefinition,
} from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, get } from '../api/client';
import { confirmTemplateOf, newTemplate } from '../api/new-template';
import { useDestination } from '../api/destination';
import { routesQuery } from '../api/queries';
import { Button } from '../components/button';
import { messageOf } from '../components/status';
import { SelectField } from '../components/text-field';
import { useFormDraft } from './draft';

/** What the visitor is written after sending. It stands in the routes that take from the form. */
export function MailAfter() {
  const intake = useFormDraft(({ saved }) => saved?.intake.key);
  const routes = useQuery(routesQuery).data;
  const destination = useDestination();
  if (!routes || !destination) return null;
  const taking = routes.filter(({ from }) => from.some(({ key }) => key === intake));
  return (
    <section aria-label="Mail to the visitor" className="flex flex-col gap-2 border-t border-line pt-2">
      <h3 className="text-[13px] font-semibold text-muted">Mail to the visitor</h3>
      {taking.length === 0 && (
        <p className="text-small text-muted">A route writes to the visitor. Publish the form with its route first.</p>
      )}
      {taking.map(({ id, name }) => (
        <MailOfRoute key={id} id={id} name={name} destination={destination} />
      ))}
    </section>
  );
}

function MailOfRoute({ id, name, destination }: { id: string; name: string; destination: Destination }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const route = useQuery({
    queryKey: ['route', id, 'draft'],
    queryFn: get<RouteShape>(`/routes/${id}`),
    meta: { topics: ['routes'] },
  });
  const put = useMutation({
    mutationFn: async (change: (draft: RouteDefinition) => RouteDefinition | Promise<RouteDefinition>) => {
      const { draft, revision } = route.data!;
      await call('PUT', `/routes/${id}/draft`, await change(draft), { 'if-match': `"${revision}"` });
    },
    onSuccess: () =>
      toast(`Saved in the draft of ${name}. It is sent once the draft is published.`, {
        action: { label: 'Open the route', onClick: () => void navigate(`/routes/${id}`) },
      }),
    onError: (error) => toast.error(messageOf(error)),
    onSettled: () => client.invalidateQueries({ queryKey: ['route', id] }),
  });
  if (!route.data) return null;
  const { draft, published } = route.data;
  const templates = destination.templates ?? [];
  const says = written(draft, destination);
  return (
    <div className="flex flex-col gap-1.5">
      {says.map((one) => (
        <p key={one} className="[overflow-wrap:anywhere]">
          {capitalised(one)}
          {!(published && written(published, destination).includes(one)) && (
            <span className="text-muted">, once the route is published</span>
          )}
          .
        </p>
      ))}
      <div className="flex flex-wrap items-center gap-2">
        {templates.length > 0 && (
          <SelectField
            label={`Mail by which ${name} writes the visitor`}
            hideLabel
            value=""
            disabled={put.isPending}
            onChange={({ target: { value: template } }) =>
              put.mutate((before) => ({
                ...before,
                followUps: [...(before.followUps ?? []), { do: 'mail', to: 'visitor', template } as FollowUp],
              }))
            }
          >
            <option value="">write them a mail…</option>
            {templates.map((template) => (
              <option key={template.key} value={template.key}>
                {template.name}
              </option>
            ))}
          </SelectField>
        )}
        {!(draft.holds ?? []).some(isConfirmation) && (
          <Button
            disabled={put.isPending}
            onClick={() =>
              put.mutate(async (before) => {
                const template = confirmTemplateOf(templates) ?? (await newTemplate(CONFIRM_STARTER, templates)).key;
                const confirms: ConfirmationHold = { for: 'confirmation', template };
                return { ...before, holds: [...(before.holds ?? []), confirms] };
              })
            }
          >
            Have them confirm first
          </Button>
        )}
        <Link to={`/routes/${id}`} className="text-small text-slate underline">
          {name}
        </Link>
      </div>
    </div>
  );
}

/** What a route writes to the visitor, as clauses. */
function written(route: RouteDefinition, destination: Destination): string[] {
  return [
    ...(route.holds ?? []).flatMap((hold) =>
      isConfirmation(hold) ? (holdRuleOf(hold)?.describe(hold, { destination }) ?? []) : [],
    ),
    ...(route.followUps ?? []).flatMap((one) =>
      one.do === 'mail' && one.to === 'visitor' ? (effectOf(one)?.describe(one, { route, destination }) ?? []) : [],
    ),
  ];
}
