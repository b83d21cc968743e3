import type { RunLine, SubmissionDetail } from '@haycart/api';
import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { IconButton } from '../components/button';
import { count } from '../components/format';
import { StateShape, stateOf } from '../components/state-shape';
import { Time } from '../components/time';
import { resultOf } from './result-words';

/** Where in the list the open submission stands, and how to come to the one before and after it. */
export interface PanelSteps {
  at: number;
  /** How many there are, unless they are too many to count. */
  of: number | undefined;
  /** Opens another of the list; undefined where there is none. */
  to: (at: number) => (() => void) | undefined;
}

/** What became of a submission, whose it is and where it came in. */
export function PanelHead({
  submission,
  run,
  steps,
  close,
}: {
  submission: SubmissionDetail;
  run: RunLine | undefined;
  steps: PanelSteps | null;
  close: () => void;
}) {
  const state = run?.outcome ?? stateOf(submission);
  const { result, why } = resultOf(state, run?.summary ?? '');
  const { who, email } = submission;
  return (
    <header className="flex-none px-5 pt-4 pb-3">
      <div className="flex min-h-8 items-center gap-1 text-small text-muted">
        <p className="min-w-0 flex-1 truncate">
          {submission.intake.name}, <Time at={submission.receivedAt} />, source {submission.source}
        </p>
        {steps && <Steps {...steps} />}
        <IconButton label="Close (Esc)" onClick={close}>
          <X className="size-4" aria-hidden />
        </IconButton>
      </div>
      <h2 className="grid grid-cols-[11px_minmax(0,1fr)] gap-x-2.5 text-lg leading-6">
        <span className="flex h-6 items-center">
          <StateShape state={state} word />
        </span>
        <span className="[overflow-wrap:anywhere]">{result}</span>
      </h2>
      {why && <p className="mt-0.5 [overflow-wrap:anywhere]">{why}</p>}
      <p className="mt-1 truncate">
        <span className="font-semibold">{who || 'Unnamed'}</span>
        {email && email !== who && <span className="text-muted"> {email}</span>}
      </p>
    </header>
  );
}

function Steps({ at, of, to }: PanelSteps) {
  const [before, after] = [to(at - 1), to(at + 1)];
  return (
    <span className="flex flex-none items-center">
      <IconButton label="The one before (k)" disabled={!before} onClick={before}>
        <ChevronLeft className="size-4" aria-hidden />
      </IconButton>
      <span className="tabular-nums">
        {count(at + 1)}
        {of !== undefined && ` of ${count(of)}`}
      </span>
      <IconButton label="The one after (j)" disabled={!after} onClick={after}>
        <ChevronRight className="size-4" aria-hidden />
      </IconButton>
    </span>
  );
}
