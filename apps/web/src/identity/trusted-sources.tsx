import { useQuery } from '@tanstack/react-query';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { intakeLinesQuery } from '../api/queries';
import { IconButton } from '../components/button';
import { SelectField } from '../components/text-field';

/** Which sources are trusted more than others, for the fields where the most trusted one survives. */
export function TrustedSources({
  trusted,
  change,
}: {
  /** Keys of intakes, and `typed`; the most trusted first. */
  trusted: readonly string[];
  change: (trusted: readonly string[]) => void;
}) {
  const intakes = useQuery(intakeLinesQuery);
  const sources = new Map([
    ['typed', 'What people typed here'],
    ...(intakes.data ?? []).map(({ key, name }): [string, string] => [key, name]),
  ]);
  const others = [...sources].filter(([key]) => !trusted.includes(key));
  const moved = (from: number, to: number) => {
    const order = [...trusted];
    order.splice(to, 0, ...order.splice(from, 1));
    return order;
  };
  return (
    <section className="mt-3">
      <h3 className="text-[14px]">Sources, the most trusted first</h3>
      <p className="my-1 text-small text-muted">For fields whose value from the most trusted source survives.</p>
      <ol aria-label="Trusted sources">
        {trusted.map((key, index) => {
          const name = sources.get(key) ?? key;
          return (
            <li key={key} className="flex items-center gap-1 border-b border-hair py-0.5">
              <span className="w-6 text-right text-muted tabular-nums">{index + 1}</span>
              <span className="min-w-0 flex-1 truncate px-2">{name}</span>
              <IconButton
                label={`Trust ${name} more`}
                disabled={index === 0}
                onClick={() => change(moved(index, index - 1))}
              >
                <ArrowUp className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={`Trust ${name} less`}
                disabled={index === trusted.length - 1}
                onClick={() => change(moved(index, index + 1))}
              >
                <ArrowDown className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={`Trust ${name} like any other`}
                onClick={() => change(trusted.filter((other) => other !== key))}
              >
                <X className="size-4" aria-hidden />
              </IconButton>
            </li>
          );
        })}
      </ol>
      {others.length > 0 && (
        <div className="mt-2 w-[260px] max-w-full">
          <SelectField
            label="Add a trusted source"
            value=""
            onChange={({ target }) => target.value && change([...trusted, target.value])}
          >
            <option value="">Choose a source</option>
            {others.map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </SelectField>
        </div>
      )}
    </section>
  );
}
