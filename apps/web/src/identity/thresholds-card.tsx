import type { IdentityReport, LookAlikeLine, ThresholdExamples } from '@haycart/api';
import { counted, percent, type RecordKind, type Thresholds } from '@haycart/core';
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call, get } from '../api/client';
import { PLURALS } from '../api/record-kinds';
import { Button } from '../components/button';
import { Sheet } from '../components/sheet';
import { messageOf } from '../components/status';
import { ScoreChart } from './score-chart';

/** Where the thresholds stand on the workspace’s own pairs, and what moving them would do. */
export function ThresholdsCard({ report }: { report: IdentityReport }) {
  const client = useQueryClient();
  const saved = report.settings.thresholds;
  const [thresholds, setThresholds] = useState(saved);
  const { accept, ask } = thresholds;
  const crossed = ask > accept;
  const examples = useQuery(examplesAt(report.kind, thresholds));
  const before = useQuery(examplesAt(report.kind, saved));
  const save = useMutation({
    mutationFn: () => call('PUT', '/identity/settings', { thresholds }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['identity'] });
      toast('The thresholds are set. The next look through all records goes by them.');
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const moved = accept !== saved.accept || ask !== saved.ask;
  return (
    <Sheet className="flex flex-col gap-3 p-4">
      <h2 className="text-base">Thresholds</h2>
      {report.scores.some((times) => times > 0) ? (
        <ScoreChart scores={report.scores} thresholds={thresholds} />
      ) : (
        <p className="text-muted">
          {report.scores.length
            ? 'No two are alike in anything that tells so far.'
            : 'Look through all records once, and their pairs stand here by probability.'}
        </p>
      )}
      <div className="grid gap-4 sm:grid-cols-2">
        <Slider
          label="Ask from"
          value={ask}
          set={(value) => setThresholds({ ...thresholds, ask: value })}
          note={noteOn('asked', crossed ? undefined : examples.data, before.data)}
        />
        <Slider
          label="Accept from"
          value={accept}
          set={(value) => setThresholds({ ...thresholds, accept: value })}
          note={noteOn('accepted', crossed ? undefined : examples.data, before.data)}
        />
      </div>
      {crossed && (
        <p role="alert" className="text-small text-brick">
          Nobody can be asked about what is accepted. Make “ask” the smaller of the two.
        </p>
      )}
      {!!examples.data?.askedByName && !crossed && (
        <p className="text-small text-muted">
          {counted(examples.data.askedByName, 'pair')} over the line {examples.data.askedByName === 1 ? 'is' : 'are'}{' '}
          asked about all the same: the names may be those of two.
        </p>
      )}
      {examples.data && !crossed && (
        <div className="grid gap-4 sm:grid-cols-2">
          <Examples
            title="Just under the line: asked"
            pairs={examples.data.below}
            kind={report.kind}
            askedFrom={thresholds.accept}
          />
          <Examples title="Just over the line: acceptable" pairs={examples.data.above} kind={report.kind} />
        </div>
      )}
      <div className="flex items-center gap-2">
        <Button look="main" disabled={!moved || crossed || save.isPending} onClick={() => save.mutate()}>
          Set thresholds
        </Button>
        {moved && <Button onClick={() => setThresholds(saved)}>Back to what they are</Button>}
        <span className="text-small text-muted">Routes have thresholds of their own, under Recognise.</span>
      </div>
    </Sheet>
  );
}

function Slider({
  label,
  value,
  set,
  note,
}: {
  label: string;
  value: number;
  set: (value: number) => void;
  note: string;
}) {
  return (
    <label className="flex flex-col gap-1">
      <span className="flex items-baseline gap-2 font-semibold">
        {label} <span className="tabular-nums">{value.toFixed(2)}</span>
        <span className="ml-auto text-small font-normal text-muted">{note}</span>
      </span>
      <input
        type="range"
        min={0.05}
        max={1}
        step={0.01}
        value={value}
        onChange={({ target }) => set(Number(target.value))}
        className="w-full accent-green"
      />
    </label>
  );
}

function Examples({
  title,
  pairs,
  kind,
  askedFrom = Infinity,
}: {
  title: string;
  pairs: readonly LookAlikeLine[];
  kind: RecordKind;
  /** From what probability on a pair is asked about only since the names may be those of two. */
  askedFrom?: number;
}) {
  return (
    <section>
      <h3 className="mb-1 text-small font-semibold text-muted">{title}</h3>
      <ul aria-label={title}>
        {pairs.map(({ one, other, probability }) => (
          <li key={one.id + other.id} className="flex h-8 items-center gap-2 border-b border-hair">
            <Link
              to={`/decide/look-alike.${one.id}.${other.id}`}
              className="min-w-0 flex-1 truncate text-slate hover:underline"
            >
              {one.name} · {other.name}
            </Link>
            {probability >= askedFrom && <span className="flex-none text-small text-muted">names</span>}
            <Link
              to={`/records/${PLURALS[kind]}/${other.id}`}
              className="text-small tabular-nums text-muted"
              aria-label={`Open ${other.name}`}
            >
              {percent(probability)}
            </Link>
          </li>
        ))}
        {!pairs.length && <li className="py-1 text-small text-muted">None waiting.</li>}
      </ul>
    </section>
  );
}

/** What thresholds would do, asked of the server; nothing of those that cross. */
function examplesAt(kind: RecordKind, { accept, ask }: Thresholds) {
  return {
    queryKey: ['identity', kind, 'examples', accept, ask],
    queryFn: get<ThresholdExamples>(`/identity/examples?kind=${kind}&accept=${accept}&ask=${ask}`),
    placeholderData: keepPreviousData,
    enabled: ask <= accept,
    retry: false,
  };
}

function noteOn(verdict: 'asked' | 'accepted', now?: ThresholdExamples, before?: ThresholdExamples): string {
  if (!now || !before) return '';
  const word = verdict === 'asked' ? 'to ask about' : 'acceptable';
  return `${counted(now[verdict], 'pair')} ${word}${difference(now[verdict] - before[verdict])}`;
}

function difference(more: number): string {
  if (more === 0) return '';
  return `, ${Math.abs(more).toLocaleString('en-GB')} ${more > 0 ? 'more' : 'fewer'}`;
}
