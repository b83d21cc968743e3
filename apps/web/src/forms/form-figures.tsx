import type { FormFiguresShape, IntakeShape } from '@haycart/api';
import type { FormFigures as Figures } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { fieldsQuery, formFiguresQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Dialog } from '../components/dialog';
import { count, percent } from '../components/format';
import { Failed, Loading } from '../components/status';
import { itemWords } from './item-words';
import { FormSteps } from './form-steps';
import { FormTrial } from './form-trial';

const PARTS = {
  byVersion: 'Version',
  byPage: 'Page',
  bySource: 'Source',
  byDevice: 'Device',
} as const;
const DAYS = [7, 30, 90, 365] as const;

/** What happens at a form: whole, and by part of its visitors. */
export function FormFigures({ intake, close }: { intake: IntakeShape; close: () => void }) {
  const [days, setDays] = useState<number>(30);
  const words = useWords();
  const fields = useQuery(fieldsQuery).data ?? [];
  const wordsOf = (name: string) => {
    const item = intake.form?.items.find((one) => one.name === name);
    return item ? itemWords(item, fields) : name;
  };
  const figures = useQuery(formFiguresQuery(intake.key, days));
  return (
    <Dialog
      open
      wide
      close={close}
      title={`What happens at “${intake.name}”`}
      description="Counted without cookies; nothing about a visitor is kept."
    >
      <label className="mb-3 flex items-center gap-2 text-muted">
        over the last
        <select
          value={days}
          onChange={({ target }) => setDays(Number(target.value))}
          className="h-8 cursor-pointer rounded border-[1.5px] border-line bg-sheet px-2 font-semibold text-ink"
        >
          {DAYS.map((one) => (
            <option key={one} value={one}>
              {one} days
            </option>
          ))}
        </select>
      </label>
      {figures.isPending ? (
        <Loading lines={6} />
      ) : figures.isError ? (
        <Failed error={figures.error} retry={() => void figures.refetch()} />
      ) : (
        <>
          {figures.data.trial && <FormTrial intake={intake} trial={figures.data.trial} />}
          <FormSteps steps={figures.data.steps} dealsWord={words.many('deal')} wordsOf={wordsOf} />
          <FiguresTable figures={figures.data} />
        </>
      )}
    </Dialog>
  );
}

function FiguresTable({ figures }: { figures: FormFiguresShape }) {
  return (
    <table className="w-full tabular-nums">
      <thead>
        <tr className="text-small text-muted [&>th]:px-2 [&>th]:py-1 [&>th]:text-right [&>th]:font-semibold">
          <th className="!text-left">Visitors</th>
          <th>Views</th>
          <th>Began</th>
          <th>Sent</th>
          <th>Completion</th>
          <th>Time</th>
        </tr>
      </thead>
      <tbody>
        <Line name="all" figures={figures.whole} strong />
        {(Object.keys(PARTS) as (keyof typeof PARTS)[]).map((part) => [
          <tr key={part}>
            <th colSpan={6} className="px-2 pt-3 pb-1 text-left text-small text-muted">
              {PARTS[part]}
            </th>
          </tr>,
          ...figures[part].map(({ name, figures: own }) => (
            <Line key={`${part} ${name}`} name={name || 'not known'} figures={own} />
          )),
        ])}
      </tbody>
    </table>
  );
}

function Line({ name, figures, strong = false }: { name: string; figures: Figures; strong?: boolean }) {
  const { views, starts, sends, completion, seconds } = figures;
  return (
    <tr className={`border-t border-hair [&>td]:px-2 [&>td]:py-1 [&>td]:text-right ${strong ? 'font-semibold' : ''}`}>
      <td className="max-w-[300px] truncate !text-left" title={name}>
        {name}
      </td>
      <td>{count(views)}</td>
      <td>{count(starts)}</td>
      <td>{count(sends)}</td>
      <td>{completion === null ? '–' : percent(completion)}</td>
      <td>{seconds === null ? '–' : duration(seconds)}</td>
    </tr>
  );
}

/** How long it took: `48 s`, `2 min 5 s`. */
function duration(seconds: number): string {
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
}
