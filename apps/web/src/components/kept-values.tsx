import type { MergeRehearsal } from '@haycart/api';
import { sameValue, type FieldValue } from '@haycart/core';
import { Sheet } from './sheet';

/** Values that a person chose otherwise than the rules, by field. */
export type ChosenValues = Readonly<Record<string, FieldValue | null>>;

const HEAD = 'py-2 pr-4 text-left text-label font-semibold text-muted';
/** They follow from what they are made of. */
const FOLLOWS = new Set(['full_name', 'email', 'phone', 'domain']);

/** What the one record keeps where the records differ: by which rule, and any other value by a click. */
export function KeptValues({
  fields,
  chosen,
  choose,
}: {
  fields: MergeRehearsal['fields'];
  chosen: ChosenValues;
  choose: (field: string, value: FieldValue) => void;
}) {
  const differing = fields.filter(({ field, candidates }) => candidates.length > 1 && !FOLLOWS.has(field));
  if (!differing.length)
    return <p className="text-small text-muted">Where both have a value it is the same; nothing has to be chosen.</p>;
  return (
    <Sheet className="overflow-x-auto px-3.5">
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className={`${HEAD} w-[140px]`}>If the same</th>
            <th className={HEAD}>What the record keeps</th>
            <th className={`${HEAD} w-[210px]`}>Rule</th>
          </tr>
        </thead>
        <tbody>
          {differing.map(({ field, label, value, why, candidates }) => {
            const kept = field in chosen ? chosen[field]! : value;
            const all = Array.isArray(kept);
            return (
              <tr key={field} className="border-b border-hair last:border-0">
                <td className="py-1.5 pr-4 text-muted">{label}</td>
                <td className="py-1.5 pr-4">
                  <span className="flex flex-wrap gap-1.5">
                    {candidates.map((candidate) => {
                      const isKept = all || sameValue(candidate.value, kept);
                      return (
                        <button
                          key={candidate.text}
                          type="button"
                          aria-pressed={isKept}
                          onClick={() => choose(field, candidate.value)}
                          className={`rounded border px-1.5 text-left [overflow-wrap:anywhere] ${isKept ? 'border-ink bg-straw-soft' : 'border-line hover:border-muted'}`}
                        >
                          {candidate.text}
                        </button>
                      );
                    })}
                  </span>
                </td>
                <td className="py-1.5 text-small text-muted">{field in chosen ? 'chosen' : why}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Sheet>
  );
}
