import type { IntakeShape } from '@haycart/api';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Check, Copy, ExternalLink } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { call } from '../api/client';
import { intakeQuery } from '../api/queries';
import { Button, buttonLook, IconButton } from '../components/button';
import { Mono, PageHead, Sheet } from '../components/sheet';
import { Failed, Loading, messageOf } from '../components/status';
import { FormPreview } from './form-preview';
import { Listening } from './listening';

/** One intake: its address and what arrives there, or the form and its link. */
export function IntakePage() {
  const { id = '' } = useParams();
  const intake = useQuery(intakeQuery(id));
  if (intake.isPending) return <Loading />;
  if (intake.isError) return <Failed error={intake.error} retry={() => void intake.refetch()} />;
  return (
    <div className="h-full overflow-y-auto p-5">
      <PageHead
        title={intake.data.name}
        aside={
          <>
            <Link to="/intakes" className="hover:underline">
              Intakes
            </Link>
            , {intake.data.kind}
            {intake.data.state === 'closed' ? ', closed' : ''}
          </>
        }
      >
        <Link to={`/submissions?intake=${intake.data.key}`} className={buttonLook('quiet')}>
          Its submissions
        </Link>
        <OpenOrClose intake={intake.data} />
      </PageHead>
      {intake.data.kind === 'form' ? <FormSide intake={intake.data} /> : <EndpointSide intake={intake.data} />}
    </div>
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

function FormSide({ intake }: { intake: IntakeShape }) {
  const link = `${window.location.origin}${intake.address}`;
  return (
    <div className="grid gap-5 lg:grid-cols-[360px_minmax(0,1fr)]">
      <div className="flex min-w-0 flex-col gap-5">
        <Sheet className="p-4">
          <h2 className="mb-1 text-base">Link</h2>
          <p className="mb-2 text-muted">Campaign parameters in the link are recorded as the source.</p>
          <Copyable text={link} label="link" />
          <a href={intake.address} target="_blank" rel="noreferrer" className={`${buttonLook('quiet')} mt-3`}>
            <ExternalLink className="size-4" aria-hidden /> Open the form
          </a>
        </Sheet>
        <Sheet className="p-4">
          <h2 className="mb-2 text-base">Questions</h2>
          <ol className="flex flex-col">
            {intake.form?.questions.map(({ name, label, type, required }) => (
              <li key={name} className="flex items-baseline gap-2 border-b border-hair py-1.5">
                <span className="min-w-0 flex-1 truncate">
                  {type === 'hidden' ? <span className="text-muted">not shown</span> : label}
                </span>
                {required && (
                  <span className="rounded-sm border border-line px-1 text-[11px] leading-4 text-muted">needed</span>
                )}
                <Mono className="text-muted">{name}</Mono>
              </li>
            ))}
          </ol>
        </Sheet>
        <Listening intake={intake} />
      </div>
      <FormPreview intake={intake} />
    </div>
  );
}

function Copyable({ text, label }: { text: string; label: string }) {
  const [copied, setCopied] = useState(false);
  const copy = async () => {
    await navigator.clipboard.writeText(text);
    setCopied(true);
    window.setTimeout(() => setCopied(false), 1_500);
  };
  return (
    <div className="flex items-start gap-2 rounded border border-line bg-raised">
      <pre
        tabIndex={0}
        aria-label={`The ${label}`}
        className="min-w-0 flex-1 overflow-x-auto p-2.5 font-mono text-[12.5px] leading-[18px]"
      >
        {text}
      </pre>
      <IconButton label={copied ? 'Copied' : `Copy the ${label}`} onClick={() => void copy()} className="m-0.5">
        {copied ? <Check className="size-4 text-green" aria-hidden /> : <Copy className="size-4" aria-hidden />}
      </IconButton>
    </div>
  );
}
