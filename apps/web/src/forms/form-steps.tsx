import type { FormStep } from '@haycart/core';
import { count, percent } from '../components/format';

const WORDS: Record<Exclude<FormStep['what'], 'question'>, string> = {
  view: 'Looked',
  start: 'Began',
  gone: 'Questions that are gone',
  send: 'Sent',
  written: 'Written to records',
  won: 'Won',
};

/** The way from looking at a form to a won deal, as bars: how many came as far, and where they left. */
export function FormSteps({
  steps,
  dealsWord,
  wordsOf,
}: {
  steps: readonly FormStep[];
  dealsWord: string;
  /** What a question is called, by its name. */
  wordsOf: (name: string) => string;
}) {
  const most = Math.max(1, ...steps.map((step) => step.count));
  return (
    <table className="mb-4 w-full" aria-label="From looking to won">
      <tbody>
        {steps.map(({ what, name, count: came, left }) => (
          <tr key={`${what} ${name}`} className="h-7">
            <th
              scope="row"
              className={`max-w-0 w-[34%] truncate pr-3 text-left ${what === 'question' ? 'pl-4 font-normal' : 'font-semibold'}`}
              title={name ? wordsOf(name) : undefined}
            >
              {what === 'question' ? wordsOf(name) : what === 'won' ? `Won ${dealsWord}` : WORDS[what]}
            </th>
            <td>
              <span className="block h-3.5 bg-hair" aria-hidden>
                <span
                  className={`block h-full ${what === 'question' || what === 'gone' ? 'bg-straw' : 'bg-green'}`}
                  style={{ width: `${(came / most) * 100}%` }}
                />
              </span>
            </td>
            <td className="tabular w-16 pl-3 text-right">{count(came)}</td>
            <td className="tabular w-12 pl-2 text-right text-small text-muted">{percent(came / most)}</td>
            <td className="w-24 pl-3 text-right text-small whitespace-nowrap text-brick max-sm:hidden">
              {left > 0 && `${count(left)} left here`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
