import type { IntakeShape, TrialFigures } from '@haycart/api';
import { FEWEST_VIEWS } from '@haycart/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { call } from '../api/client';
import { formQuery } from '../api/queries';
import { Button } from '../components/button';
import { count, percent } from '../components/format';
import { messageOf } from '../components/status';
import { Time } from '../components/time';
import { useFormDraft } from './draft';

/** How far the line reaches to either side, in points of completion, at the least. */
const FEWEST_POINTS = 5;

/** Two versions that share the visitors: how sure it is which is better, and the way to end it. */
export function FormTrial({ intake, trial }: { intake: IntakeShape; trial: TrialFigures }) {
  const client = useQueryClient();
  const told = useFormDraft(({ told }) => told);
  const end = useMutation({
    mutationFn: (keep: number) => call<{ version: number }>('POST', `/forms/${intake.key}/trial/end`, { keep }),
    onSuccess: async ({ version }) => {
      told(await client.fetchQuery({ ...formQuery(intake.key), staleTime: 0 }));
      void client.invalidateQueries({ queryKey: ['form-figures'] });
      void client.invalidateQueries({ queryKey: ['submissions', 'intake-lines'] });
      toast.success(`Everybody sees version ${version} from now on.`);
    },
    onError: (error) => toast.error(messageOf(error)),
  });
  const { published, earlier, comparison, share, since } = trial;
  const better = comparison?.better === 'one' ? published : comparison?.better === 'other' ? earlier : null;
  return (
    <section aria-label="Two versions share the visitors" className="mb-4 rounded border border-line bg-raised p-3">
      <h3 className="text-[14px]">
        {better
          ? `Version ${better.version} is better`
          : comparison
            ? 'The two versions cannot be told apart yet'
            : 'Too few visitors yet'}
      </h3>
      <p className="text-muted">
        Since <Time at={since} />, {percent(share)} of the visitors see version {published.version}, the others version{' '}
        {earlier.version}. {sentOf(published)}. {sentOf(earlier)}.{' '}
        {comparison
          ? 'With 95 % certainty the difference lies on the line, however often one looks.'
          : `Each has to be seen ${FEWEST_VIEWS} times before anything can be said.`}
      </p>
      {comparison && (
        <Difference difference={comparison.difference} low={comparison.low} high={comparison.high} sure={!!better} />
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        {[published, earlier].map(({ version }) => (
          <Button
            key={version}
            look={better?.version === version ? 'main' : undefined}
            disabled={end.isPending}
            onClick={() => end.mutate(version)}
          >
            Keep version {version} for everybody
          </Button>
        ))}
      </div>
    </section>
  );
}

/** Where the true difference of completion lies, around nothing. */
function Difference({ difference, low, high, sure }: { difference: number; low: number; high: number; sure: boolean }) {
  const reach = Math.max(FEWEST_POINTS / 100, Math.abs(low), Math.abs(high)) * 1.1;
  const at = (value: number) => 50 + (value / reach) * 50;
  return (
    <figure className="mt-2">
      <svg viewBox="0 0 100 14" preserveAspectRatio="none" className="h-6 w-full" aria-hidden>
        <line x1="0" x2="100" y1="7" y2="7" className="stroke-line" strokeWidth="1" vectorEffect="non-scaling-stroke" />
        <line
          x1="50"
          x2="50"
          y1="0"
          y2="14"
          className="stroke-muted"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
        <rect x={at(low)} width={at(high) - at(low)} y="4" height="6" className={sure ? 'fill-green' : 'fill-straw'} />
        <line
          x1={at(difference)}
          x2={at(difference)}
          y1="1"
          y2="13"
          className="stroke-ink"
          strokeWidth="2"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <figcaption className="flex justify-between text-small tabular-nums">
        <span className="text-muted">the earlier one is better</span>
        <b>
          {points(difference)} points of completion, between {points(low)} and {points(high)}
        </b>
        <span className="text-muted">the new one is better</span>
      </figcaption>
    </figure>
  );
}

/** `Version 2 was sent by 64 of 196` */
function sentOf({ version, figures }: TrialFigures['published']): string {
  return `Version ${version} was sent by ${count(figures.sends)} of ${count(figures.views)}`;
}

/** `+2.4`, `−0.3` */
function points(value: number): string {
  const rounded = Math.round(value * 1_000) / 10;
  return `${rounded < 0 ? '−' : '+'}${Math.abs(rounded).toFixed(1)}`;
}
