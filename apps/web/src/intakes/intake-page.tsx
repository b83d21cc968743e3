import type { IntakeShape } from '@haycart/api';
import { intakeKind } from '@haycart/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Fragment, useState, type ComponentType } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { call } from '../api/client';
import { intakeQuery } from '../api/queries';
import { Button, buttonLook } from '../components/button';
import { Copyable } from '../components/copyable';
import { IntakeSourceDialog } from '../components/intake-source';
import { Mono, PageHead, Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { Listening } from './listening';
import { SheetSide } from './sheet-side';
import { WhatArrives } from './what-arrives';

/** One intake: its address and what arrives there. A form is read where it is built. */
export function IntakePage() {
  const { id = '' } = useParams();
  const intake = useQuery(intakeQuery(id));
  if (intake.isPending) return <Loading />;
  if (intake.isError) return <Failed error={intake.error} retry={() => void intake.refetch()} />;
  const { data } = intake;
  if (data.slug !== null) return <Navigate to={`/intakes/${data.key}/form`} replace />;
  const kind = intakeKind(data.kind);
  const Side = SIDES[data.kind] ?? Settings;
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead
        title={data.name}
        aside={
          <>
            <Link to="/intakes" className="hover:underline">
              Intakes
            </Link>
            , {kind.label}
            {data.state === 'closed' ? ', closed' : ''}
          </>
        }
      >
        {kind.takesPosts && (
          <Link to={`/routes?new=${data.key}`} className={buttonLook('quiet')}>
            New route from it
          </Link>
        )}
        <Link to={`/submissions?intake=${data.key}`} className={buttonLook('quiet')}>
          Its submissions
        </Link>
        <SourceOf intake={data} />
        {kind.closes && <OpenOrClose intake={data} />}
      </PageHead>
      <Side intake={data} />
      <WhatArrives intakeKey={data.key} />
    </div>
  );
}

/** What the page of a kind shows beside what arrives, where that is more than its settings. */
const SIDES: Record<string, ComponentType<{ intake: IntakeShape }>> = { endpoint: EndpointSide, sheet: SheetSide };

/** What was asked when the intake was made. */
function Settings({ intake }: { intake: IntakeShape }) {
  const { asks } = intakeKind(intake.kind);
  if (!asks.length) return null;
  return (
    <Sheet className="mb-5 grid max-w-xl grid-cols-[max-content_1fr] gap-x-6 gap-y-2 p-4">
      {asks.map(({ key, label }) => (
        <Fragment key={key}>
          <b className="font-semibold">{label}</b>
          <Mono>{String(intake.settings[key] ?? '')}</Mono>
        </Fragment>
      ))}
    </Sheet>
  );
}

function useChange(intake: IntakeShape) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: object) => call<IntakeShape & { secret?: string }>('PATCH', `/intakes/${intake.key}`, change),
    onSuccess: () => client.invalidateQueries({ queryKey: ['intakes'] }),
  });
}

function OpenOrClose({ intake }: { intake: IntakeShape }) {
  const change = useChange(intake);
  const closed = intake.state === 'closed';
  return (
    <Button
      look={closed ? 'main' : 'danger'}
      disabled={change.isPending}
      onClick={() => change.mutate({ state: closed ? 'live' : 'closed' })}
    >
      {closed ? 'Open again' : 'Close it'}
    </Button>
  );
}

/** Shows the intake's source, and opens the dialog that sets it. */
function SourceOf({ intake }: { intake: IntakeShape }) {
  const change = useChange(intake);
  const [isOpen, setOpen] = useState(false);
  const said = intake.source.constant?.source;
  return (
    <>
      <Button onClick={() => setOpen(true)}>{said ? `Source: ${said}` : 'Source…'}</Button>
      {isOpen && (
        <IntakeSourceDialog
          intake={intake}
          save={(source) => change.mutateAsync({ source })}
          close={() => setOpen(false)}
        />
      )}
    </>
  );
}

function EndpointSide({ intake }: { intake: IntakeShape }) {
  const address = `${window.location.origin}${intake.address}`;
  const curl = `curl -X POST ${address} \\\n  -H 'content-type: application/json' \\\n  -d '{\n    "person": {\n      "name": {"first": "Joost", "last": "de Ruiter"},\n      "email": "joost@vanderlaan.example"},\n    "business": {\n      "name": "Van der Laan",\n      "website": "https://vanderlaan.example"}}'`;
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
      <div className="flex min-w-0 flex-col gap-5">
        <Sheet className="p-4">
          <h2 className="mb-1 text-base">Address</h2>
          <p className="mb-2 text-muted">
            Post JSON, urlencoded or multipart bodies here. An answer of 202 means that it is kept.
          </p>
          <Copyable text={address} label="address" />
          <h2 className="mt-5 mb-1 text-base">Try it</h2>
          <p className="mb-2 text-muted">Copy this into a terminal; what you send shows up beside it.</p>
          <Copyable text={curl} label="command" />
        </Sheet>
        <Signature intake={intake} />
      </div>
      <Listening intake={intake} />
    </div>
  );
}

function Signature({ intake }: { intake: IntakeShape }) {
  const change = useChange(intake);
  return (
    <Sheet className="p-4">
      <h2 className="mb-1 text-base">Signature</h2>
      <p className="mb-3 text-muted">
        {intake.signed
          ? 'Posts must carry webhook-id, webhook-timestamp and webhook-signature, as Standard Webhooks defines them.'
          : 'Anybody who knows the address may post. Ask for a signature if the sender can make one.'}
      </p>
      {change.data?.secret && (
        <div className="mb-3">
          <p className="mb-1 font-semibold">The secret, shown only now:</p>
          <Copyable text={change.data.secret} label="secret" />
        </div>
      )}
      <Button disabled={change.isPending} onClick={() => change.mutate({ signed: !intake.signed })}>
        {intake.signed ? 'Take unsigned posts again' : 'Ask for a signature'}
      </Button>
      {change.isError && (
        <p role="alert" className="mt-2 text-small text-brick">
          {messageOf(change.error)}
        </p>
      )}
    </Sheet>
  );
}
