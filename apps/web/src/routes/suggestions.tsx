import type { ProfileFieldShape } from '@haycart/api';
import {
  fieldOf,
  suggestFills,
  type Destination,
  type RouteDefinition,
  type Suggestion,
  type Write,
} from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { Check } from 'lucide-react';
import { useDeferredValue, useMemo } from 'react';
import { routeDefinitionsQuery } from '../api/queries';
import { Button } from '../components/button';
import { Mono } from '../components/sheet';
import { changeWrite } from './draft';

/** What could feed the fields that nothing feeds, worked out from all that came and what the other routes do. */
export function useSuggestions(
  definition: RouteDefinition,
  routeId: string,
  incoming: readonly ProfileFieldShape[],
  destination: Destination,
): Suggestion[] {
  const others = useQuery(routeDefinitionsQuery).data;
  const draft = useDeferredValue(definition);
  return useMemo(
    () =>
      suggestFills(
        draft,
        incoming,
        destination,
        (others ?? []).filter(({ id }) => id !== routeId).map((other) => other.definition),
      ),
    [draft, incoming, destination, others, routeId],
  );
}

/** The suggestions for one record: each is taken by itself, or all at once; never without being asked. */
export function Suggestions({
  write,
  suggestions,
  incoming,
  destination,
}: {
  write: Write;
  suggestions: readonly Suggestion[];
  incoming: readonly ProfileFieldShape[];
  destination: Destination;
}) {
  const own = suggestions.filter(({ as }) => as === write.as);
  if (!own.length) return null;
  const take = (taken: readonly Suggestion[]) =>
    changeWrite(write.as, (before) => ({
      ...before,
      fills: [
        ...before.fills.filter(({ field }) => !taken.some(({ fill }) => fill.field === field)),
        ...taken.map(({ fill }) => fill),
      ],
    }));
  return (
    <section
      aria-label={`Suggestions for the ${write.record}`}
      className="border-l-2 border-straw bg-straw-soft/30 py-1 pl-2.5"
    >
      <header className="flex items-center gap-3 py-0.5 pr-2.5">
        <h4 className="text-label font-semibold text-muted">Suggested, not taken yet</h4>
        {own.length > 1 && (
          <Button className="ml-auto" onClick={() => take(own)}>
            Take all {own.length}
          </Button>
        )}
      </header>
      <ul>
        {own.map((suggestion) => {
          const { fill, answer, reasons } = suggestion;
          const label = fieldOf(destination, write.record, fill.field)?.label ?? fill.field;
          return (
            <li
              key={fill.field}
              className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 py-1 pr-2.5 md:grid-cols-[minmax(0,0.95fr)_minmax(0,1.6fr)_minmax(0,2.2fr)_auto]"
            >
              <span className="truncate">{label}</span>
              <AnswerName answer={answer} incoming={incoming} />
              <span className="text-small text-muted max-md:order-4 max-md:col-span-2">{reasons.join('; ')}</span>
              <Button onClick={() => take([suggestion])} aria-label={`Take ${answer} for ${label}`}>
                <Check className="size-3.5" aria-hidden /> Take
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function AnswerName({ answer, incoming }: { answer: string; incoming: readonly ProfileFieldShape[] }) {
  const label = incoming.find(({ key }) => key === answer)?.label ?? answer;
  return label === answer ? (
    <Mono className="truncate max-md:order-3 max-md:col-span-2">{answer}</Mono>
  ) : (
    <span className="truncate max-md:order-3 max-md:col-span-2" title={answer}>
      {label}
    </span>
  );
}
