import type { AnswerLine } from '@haycart/api';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { answersQuery, peopleQuery } from '../api/queries';
import { PLURALS } from '../api/record-kinds';
import { AnswerClock } from '../components/answer-clock';
import { Sheet } from '../components/sheet';
import { Time } from '../components/time';

/** So many stand there before one asks for all. */
const FIRST = 5;

/** What waits for its first answer, before all tasks: what is due next first, then what is late. */
export function ToAnswer({ owner }: { owner: string | undefined }) {
  const answers = useQuery(answersQuery(owner)).data ?? [];
  const [all, setAll] = useState(false);
  if (!answers.length) return null;
  const shown = all ? answers : answers.slice(0, FIRST);
  return (
    <Sheet className="mb-3 flex-none">
      <section aria-label="To answer" className="max-h-[40vh] overflow-y-auto">
        <h2 className="flex items-baseline gap-2 px-3.5 pt-2.5 pb-1 text-base">
          To answer
          <span className="text-small font-normal text-muted max-sm:hidden">
            a change, a note or a task done is an answer
          </span>
        </h2>
        <ul>
          {shown.map((line) => (
            <Answer key={line.id} line={line} withOwner={owner === undefined} />
          ))}
        </ul>
        {answers.length > FIRST && (
          <button
            type="button"
            aria-expanded={all}
            onClick={() => setAll(!all)}
            className="px-3.5 py-1.5 text-small text-slate hover:underline"
          >
            {all ? 'Only the first' : `${answers.length - FIRST} more`}
          </button>
        )}
      </section>
    </Sheet>
  );
}

function Answer({ line: { kind, record, name, owner, at, due }, withOwner }: { line: AnswerLine; withOwner: boolean }) {
  const people = useQuery(peopleQuery).data ?? [];
  return (
    <li className="grid h-9 grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-t border-hair px-3.5 sm:grid-cols-[minmax(0,1fr)_140px_120px_190px]">
      <Link to={`/records/${PLURALS[kind]}/${record}`} className="truncate font-semibold hover:underline">
        {name}
      </Link>
      <span className="truncate text-muted max-sm:hidden">
        {withOwner && (people.find(({ key }) => key === owner)?.name ?? 'nobody')}
      </span>
      <span className="text-muted max-sm:hidden">
        came <Time at={at} />
      </span>
      <AnswerClock due={due} className="justify-self-end" />
    </li>
  );
}
