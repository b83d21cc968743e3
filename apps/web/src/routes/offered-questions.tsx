import type { IntakeLine } from '@haycart/api';
import { followFields, offeredFills, type Destination, type RouteDefinition } from '@haycart/core';
import { Plus } from 'lucide-react';
import { Button } from '../components/button';
import { changeWrite } from './draft';

/** Questions of the route's forms that ask for a field which nothing feeds yet: each is added with one click. */
export function OfferedQuestions({
  definition,
  destination,
  intakes,
}: {
  definition: RouteDefinition;
  destination: Destination;
  intakes: readonly IntakeLine[];
}) {
  const offers = intakes
    .filter(({ key, form }) => form && definition.from.includes(key))
    .flatMap(({ form }) => offeredFills(followFields(form!, destination.fields), definition, destination));
  if (!offers.length) return null;
  return (
    <div className="mb-3 ml-9 rounded border border-line bg-straw-soft/40 px-3 py-2">
      <p className="mb-1.5">The form asks for more than the route takes:</p>
      <span className="flex flex-wrap gap-1.5">
        {offers.map(({ question, write, fill }) => (
          <Button
            key={`${write} ${fill.field}`}
            onClick={() => changeWrite(write, (before) => ({ ...before, fills: [...before.fills, fill] }))}
          >
            <Plus className="size-3.5" aria-hidden /> {question.label}
          </Button>
        ))}
      </span>
    </div>
  );
}
