import type { DecisionLine, DecisionShape, DecisionView } from '@haycart/api';
import { counted } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { decisionQuery } from '../api/queries';
import { Button } from '../components/button';
import { DifferenceGroups } from '../components/difference-groups';
import { usePageKeys } from '../components/list-keys';
import { Key, Mono, Sheet } from '../components/sheet';
import { Failed, Loading } from '../components/status';
import { TextField } from '../components/text-field';
import { Time } from '../components/time';
import { AnswerChoice } from './answer-choice';
import type { Deciding } from './decide';
import { PairDecision } from './pair-decision';
import { WhichDecision } from './which-decision';
import { addressOfThing } from './address-of-thing';

interface Deciders {
  /** All that are alike, this one among them. */
  alike: readonly DecisionLine[];
  busy: boolean;
  decide: (deciding: Deciding) => void;
  later: () => void;
}

/** One decision: what it is about, what can be done, and what that would do. */
export function Decision({ line, ...deciders }: Deciders & { line: DecisionLine }) {
  const decision = useQuery(decisionQuery(line.id));
  if (decision.isPending) return <Loading />;
  if (decision.isError) return <Failed error={decision.error} retry={() => void decision.refetch()} />;
  const { data } = decision;
  const { view } = data;
  switch (view.as) {
    case 'pair':
      return <PairDecision decision={data} pair={view} {...deciders} />;
    case 'which':
      return <WhichDecision decision={data} which={view} {...deciders} />;
    case 'plain':
    case 'approval':
    case 'answer':
    case 'drift':
      return <Shown decision={data} {...deciders} />;
  }
}

function Shown({ decision, alike, busy, decide, later }: Deciders & { decision: DecisionShape }) {
  const [all, setAll] = useState(false);
  const [note, setNote] = useState('');
  const { id, question, story, consequence, choices, view, things, examples } = decision;
  const answer = view.as === 'answer' ? view : null;
  const repair = view.as === 'drift' ? view.repair : null;
  const ids = all ? alike.map((line) => line.id) : [id];
  const act = (action: string, option?: string) => {
    if (busy) return;
    decide({ ids, action, ...(option === undefined ? {} : { option }), ...(note.trim() ? { note: note.trim() } : {}) });
  };
  usePageKeys({
    ...Object.fromEntries(choices.map(({ action, key }) => [key, () => act(action)])),
    l: later,
    ...(alike.length > 1 ? { a: () => setAll(!all) } : {}),
  });
  return (
    <article className="flex flex-col gap-4">
      <header>
        <h1 className="text-[26px] leading-8">{question}</h1>
        <p className="mt-1 max-w-[80ch] text-muted">{story}</p>
        {!repair && <Things things={things} />}
      </header>
      {view.as === 'approval' && (
        <Part title="What it would do">
          <ul className="list-disc pl-5">
            {view.would.map((what, index) => (
              <li key={index} className="[overflow-wrap:anywhere]">
                {what}
              </li>
            ))}
          </ul>
          <TextField
            label="Reason"
            placeholder="kept with the run, if you give one"
            maxLength={1_000}
            value={note}
            onChange={({ target }) => setNote(target.value)}
          />
        </Part>
      )}
      {view.as === 'drift' && <DriftedFields fields={view.fields} />}
      {answer && <AnswerChoice answer={answer} choose={(option) => act('means', option)} />}
      <div className="flex flex-wrap items-center gap-2">
        {choices.map(({ action, label, key }, index) => (
          <Button
            key={action}
            look={index === 0 && !answer ? 'main' : 'quiet'}
            disabled={busy}
            onClick={() => act(action)}
          >
            {label} <Key>{key.toUpperCase()}</Key>
          </Button>
        ))}
        <Button onClick={later}>
          Later <Key>L</Key>
        </Button>
        {alike.length > 1 && (
          <label className="flex h-8 cursor-pointer items-center gap-2 px-1">
            <input
              type="checkbox"
              checked={all}
              onChange={({ target }) => setAll(target.checked)}
              className="size-3.5 accent-green"
            />
            and the same for {alike.length === 2 ? 'the other one' : `the other ${alike.length - 1}`} like it{' '}
            <Key>A</Key>
          </label>
        )}
        <span className="min-w-[28ch] flex-1 text-small text-muted">{consequence}</span>
      </div>
      {repair && (
        <Part title="What that does">
          {repair.routes.map((route) => (
            <p key={route.id}>
              <Link to={`/routes/${route.id}`} className="text-slate underline">
                {route.name}
              </Link>
              : {route.changes.join(' ')}
            </p>
          ))}
          {repair.groups.length ? (
            <DifferenceGroups
              groups={repair.groups}
              open
              sampleAt={(submission) => `/submissions?open=${submission}`}
            />
          ) : (
            <p className="text-muted">No later submission gets another result.</p>
          )}
        </Part>
      )}
      {examples.length > 0 && <Examples decision={decision} />}
    </article>
  );
}

/** Links to what it is about. */
function Things({ things }: Pick<DecisionShape, 'things'>) {
  return (
    <p className="mt-1 flex flex-wrap gap-x-4">
      {things.map((thing) => (
        <Link key={thing.id} to={addressOfThing(thing)} className="text-slate underline">
          {thing.kind} {thing.name}
        </Link>
      ))}
    </p>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Sheet className="flex flex-col gap-2 p-3.5">
      <h2 className="text-base">{title}</h2>
      {children}
    </Sheet>
  );
}

const HEAD = 'py-2 text-left text-label font-semibold text-muted';

function DriftedFields({ fields }: { fields: Extract<DecisionView, { as: 'drift' }>['fields'] }) {
  return (
    <Sheet className="overflow-x-auto px-3.5">
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className={`${HEAD} w-[30%]`}>Field</th>
            <th className={`${HEAD} w-[90px] pr-6 !text-right`}>Answers</th>
            <th className={HEAD}>Some of them</th>
          </tr>
        </thead>
        <tbody>
          {fields.map(({ key, label, filled, examples }, index) => (
            <tr key={key} className="border-b border-hair last:border-0">
              <td className="py-1.5 pr-3">
                <Mono>{key}</Mono>
                {label !== key && <span className="block text-small text-muted">{label}</span>}
                {fields.length > 1 && (
                  <span className="block text-small text-muted">{index === 0 ? 'until then' : 'since then'}</span>
                )}
              </td>
              <td className="py-1.5 pr-6 text-right tabular-nums">{filled}</td>
              <td className="max-w-0 truncate py-1.5 text-muted">{examples.join(' · ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

function Examples({ decision: { examples, count } }: { decision: DecisionShape }) {
  const texts = new Set(examples.map(({ text }) => text)).size > 1;
  return (
    <Part title={count > examples.length ? `The last ${examples.length} of ${count}` : counted(count, 'submission')}>
      <ul>
        {examples.map(({ submission, who, at, text }) => (
          <li key={submission} className="flex h-8 items-center gap-3 border-b border-hair last:border-0">
            <Link to={`/submissions?open=${submission}`} className="min-w-0 flex-1 truncate text-slate underline">
              {who || 'unnamed'}
            </Link>
            {texts && <span className="min-w-0 flex-[2] truncate text-muted">{text}</span>}
            <Time at={at} className="flex-none text-muted" />
          </li>
        ))}
      </ul>
    </Part>
  );
}
