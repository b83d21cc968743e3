import type { DecisionAction, DecisionLine, DecisionShape } from '@haycart/api';
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
import { Time } from '../components/time';
import { AnswerChoice } from './answer-choice';
import type { Deciding } from './decide';
import { PairDecision } from './pair-decision';
import { WhichDecision } from './which-decision';
import { ACTIONS, effectOf, labelOf, questionOf, storyOf, type PlainAction } from './decision-words';

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
  if (data.pair) return <PairDecision decision={data} pair={data.pair} {...deciders} />;
  if (data.which) return <WhichDecision decision={data} which={data.which} {...deciders} />;
  return <Shown decision={data} {...deciders} />;
}

function Shown({ decision, alike, busy, decide, later }: Deciders & { decision: DecisionShape }) {
  const [all, setAll] = useState(false);
  const { id, actions, answer, drift, repair, routes, intake, examples } = decision;
  const ids = all ? alike.map((line) => line.id) : [id];
  const act = (action: DecisionAction, option?: string) => {
    if (!busy) decide({ ids, action, ...(option === undefined ? {} : { option }) });
  };
  const buttons = actions.filter((action): action is PlainAction => action in ACTIONS);
  usePageKeys({
    ...Object.fromEntries(buttons.map((action) => [ACTIONS[action].key, () => act(action)])),
    l: later,
    ...(alike.length > 1 ? { a: () => setAll(!all) } : {}),
  });
  return (
    <article className="flex flex-col gap-4">
      <header>
        <h1 className="text-[26px] leading-8">{questionOf(decision)}</h1>
        <p className="mt-1 max-w-[80ch] text-muted">{storyOf(decision)}</p>
        {!repair && <Whereabouts intake={intake} routes={routes} />}
      </header>
      {drift && <DriftedFields fields={drift.fields} />}
      {answer && <AnswerChoice answer={answer} choose={(option) => act('means', option)} />}
      <div className="flex flex-wrap items-center gap-2">
        {buttons.map((action, index) => (
          <Button
            key={action}
            look={index === 0 && !answer ? 'main' : 'quiet'}
            disabled={busy}
            onClick={() => act(action)}
          >
            {labelOf(decision, action)} <Key>{ACTIONS[action].key.toUpperCase()}</Key>
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
        <span className="min-w-[28ch] flex-1 text-small text-muted">{effectOf(decision)}</span>
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
            <p className="text-muted">Nothing of what came since comes out otherwise.</p>
          )}
        </Part>
      )}
      {examples.length > 0 && <Examples decision={decision} />}
    </article>
  );
}

/** Links to what it is about. */
function Whereabouts({ intake, routes }: Pick<DecisionShape, 'intake' | 'routes'>) {
  const places = [
    ...(intake ? [{ to: `/intakes/${intake.key}`, name: `intake ${intake.name}` }] : []),
    ...routes.map(({ id, name }) => ({ to: `/routes/${id}`, name: `route ${name}` })),
  ];
  return (
    <p className="mt-1 flex flex-wrap gap-x-4">
      {places.map(({ to, name }) => (
        <Link key={to} to={to} className="text-slate underline">
          {name}
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

function DriftedFields({ fields }: { fields: NonNullable<DecisionShape['drift']>['fields'] }) {
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

function Examples({ decision: { examples, count, kind } }: { decision: DecisionShape }) {
  const texts =
    kind === 'set-aside' || kind === 'new-answer' ? false : new Set(examples.map(({ text }) => text)).size > 1;
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
