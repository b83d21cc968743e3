import {
  recognitionOf,
  RULE_WORDS,
  rulesFor,
  USUAL_THRESHOLDS,
  WHEN_MATCHED_WORDS,
  type MatchRule,
  type RouteDefinition,
  type Safeguard,
  type WhenMatched,
  type WhenSeveral,
  type Write,
} from '@haycart/core';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { IconButton } from '../components/button';
import { Popover } from '../components/popover';
import { SelectField, TextField } from '../components/text-field';
import { DecidedChoices, decidedIn, decidedKey, useDecided, withDecided } from './decided-choice';
import { changeWrite } from './draft';

const WHEN_SEVERAL: Record<WhenSeveral, string> = {
  oldest: 'the oldest',
  latest: 'the latest',
  'most-complete': 'the most complete',
  ask: 'ask a person',
  skip: 'write nothing',
};
const SAFEGUARDS: Record<Safeguard, string> = {
  'other-surname': 'another surname',
  'other-name': 'another given name',
  'other-company': 'another company',
};
/** A mailbox or a number may have gone to somebody else. */
const GUARDED: readonly MatchRule['by'][] = ['email', 'phone', 'external-id'];

/** How each record is recognised, by rules in their order, and what then. */
export function Recognise({ definition }: { definition: RouteDefinition }) {
  const writes = definition.writes.filter(({ record }) => record !== 'deal');
  if (!writes.length) return <p className="pl-9 text-muted">The route writes no contact, company or lead.</p>;
  return (
    <div className="flex flex-col gap-5 pl-9">
      {writes.map((write) => (
        <RecogniseOne key={write.as} write={write} />
      ))}
    </div>
  );
}

function RecogniseOne({ write }: { write: Write }) {
  const rules = write.match ?? [];
  const deciding = useDecided();
  const { rules: inForce, byDefault, whenSeveral, openOnly } = recognitionOf(write);
  const set = (change: Partial<Write>) => changeWrite(write.as, (known) => ({ ...known, ...change }));
  const setRule = (at: number, rule: MatchRule) => set({ match: rules.map((known, m) => (m === at ? rule : known)) });
  const move = (at: number, by: number) => {
    const match = [...rules];
    const [rule] = match.splice(at, 1);
    match.splice(at + by, 0, rule!);
    set({ match });
  };
  const free = rulesFor(write.record).filter((by) => !rules.some((rule) => rule.by === by));
  return (
    <fieldset className="flex flex-col gap-2.5">
      <legend className="mb-1 font-semibold first-letter:uppercase">{write.record}</legend>
      <ol aria-label={`Rules for the ${write.record}`} className="flex flex-col">
        {rules.map((rule, m) => (
          <li key={rule.by} className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-hair py-1.5">
            <span className="w-5 text-right tabular-nums text-muted">{m + 1}</span>
            <b className="w-[112px] font-semibold">by {RULE_WORDS[rule.by]}</b>
            <span className="flex min-w-[200px] flex-1 flex-wrap items-center gap-x-4 gap-y-1">
              {rule.by === 'likeness' ? (
                <Thresholds rule={rule} set={(next) => setRule(m, next)} />
              ) : (
                GUARDED.includes(rule.by) &&
                write.record !== 'company' && <Safeguards rule={rule} set={(next) => setRule(m, next)} />
              )}
            </span>
            <Otherwise rule={rule} set={(next) => setRule(m, next)} />
            <span className="ml-auto flex">
              <IconButton label={`Try ${RULE_WORDS[rule.by]} earlier`} disabled={m === 0} onClick={() => move(m, -1)}>
                <ArrowUp className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={`Try ${RULE_WORDS[rule.by]} later`}
                disabled={m === rules.length - 1}
                onClick={() => move(m, 1)}
              >
                <ArrowDown className="size-4" aria-hidden />
              </IconButton>
              <IconButton
                label={`Do not recognise by ${RULE_WORDS[rule.by]}`}
                onClick={() => set({ match: rules.filter((_, other) => other !== m) })}
              >
                <X className="size-4" aria-hidden />
              </IconButton>
            </span>
          </li>
        ))}
        {!inForce.length && <li className="text-muted">Nothing is recognised: every {write.record} is new.</li>}
        {byDefault && (
          <li className="text-muted">
            No rules of its own: {openOnly ? `an open ${write.record}` : `a ${write.record}`} with the same e-mail is
            the same one.
          </li>
        )}
      </ol>
      <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        <SelectField
          label="Recognise by"
          value=""
          disabled={!free.length}
          onChange={({ target }) => set({ match: [...rules, newRule(target.value as MatchRule['by'])] })}
        >
          <option value="">{free.length ? 'one rule more' : 'all there are'}</option>
          {free.map((by) => (
            <option key={by} value={by}>
              {RULE_WORDS[by]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="If it is found"
          value={write.decided?.whenMatched ? decidedKey(write.decided.whenMatched) : (write.whenMatched ?? 'update')}
          disabled={!inForce.length}
          onChange={({ target }) => {
            const decided = decidedIn(target.value);
            changeWrite(write.as, (known) => ({
              ...withDecided(known, 'whenMatched', decided),
              ...(decided ? {} : { whenMatched: target.value as WhenMatched }),
            }));
          }}
        >
          <Options words={WHEN_MATCHED_WORDS} />
          <DecidedChoices deciding={deciding('when-matched')} />
        </SelectField>
        <SelectField
          label="If several match"
          value={whenSeveral}
          disabled={!inForce.length}
          onChange={({ target }) => set({ whenSeveral: target.value as WhenSeveral })}
        >
          <Options words={WHEN_SEVERAL} />
        </SelectField>
        <SelectField
          label="If none matches"
          value={write.whenNone ?? 'create'}
          disabled={!inForce.length}
          onChange={({ target }) => set({ whenNone: target.value as Write['whenNone'] & string })}
        >
          <option value="create">create it</option>
          <option value="skip">write none</option>
          <option value="ask">ask a person</option>
        </SelectField>
      </div>
    </fieldset>
  );
}

function newRule(by: MatchRule['by']): MatchRule {
  return by === 'likeness' ? { by, ...USUAL_THRESHOLDS } : { by };
}

function Options({ words }: { words: Readonly<Record<string, string>> }) {
  return Object.entries(words).map(([value, word]) => (
    <option key={value} value={value}>
      {word}
    </option>
  ));
}

/** What one rule does otherwise than is said below for all. */
function Otherwise({ rule, set }: { rule: MatchRule; set: (rule: MatchRule) => void }) {
  const { whenMatched = '', whenSeveral = '', whenNone = 'next' } = rule;
  const own = [whenMatched, whenSeveral, whenNone === 'next' ? '' : whenNone].filter(Boolean).length;
  const put = (key: 'whenMatched' | 'whenSeveral' | 'whenNone', value: string) => {
    const { [key]: _, ...rest } = rule;
    set((value ? { ...rest, [key]: value } : rest) as MatchRule);
  };
  return (
    <Popover
      label={`What ${RULE_WORDS[rule.by]} does otherwise`}
      align="end"
      trigger={
        <button type="button" className="h-8 px-1 text-small text-slate underline">
          {own ? `${own} otherwise` : 'as below'}
        </button>
      }
    >
      <div className="flex w-[230px] flex-col gap-2 p-3">
        <SelectField
          label="If it is found"
          value={whenMatched}
          onChange={({ target }) => put('whenMatched', target.value)}
        >
          <option value="">as below</option>
          <Options words={WHEN_MATCHED_WORDS} />
        </SelectField>
        <SelectField
          label="If several match"
          value={whenSeveral}
          onChange={({ target }) => put('whenSeveral', target.value)}
        >
          <option value="">as below</option>
          <Options words={WHEN_SEVERAL} />
        </SelectField>
        <SelectField
          label="If none matches"
          value={whenNone}
          onChange={({ target }) => put('whenNone', target.value === 'next' ? '' : target.value)}
        >
          <option value="next">try the next rule</option>
          <option value="create">create it</option>
          <option value="skip">write none</option>
          <option value="ask">ask a person</option>
        </SelectField>
      </div>
    </Popover>
  );
}

function Safeguards({ rule, set }: { rule: Exclude<MatchRule, { by: 'likeness' }>; set: (rule: MatchRule) => void }) {
  const asked = rule.askIf ?? [];
  return (
    <>
      <span className="text-small text-muted">ask if it has</span>
      {(Object.keys(SAFEGUARDS) as Safeguard[]).map((safeguard) => (
        <label key={safeguard} className="flex cursor-pointer items-center gap-1.5 text-small">
          <input
            type="checkbox"
            className="size-3.5 accent-green"
            checked={asked.includes(safeguard)}
            onChange={({ target }) => {
              const next = target.checked ? [...asked, safeguard] : asked.filter((one) => one !== safeguard);
              const { askIf: _, ...rest } = rule;
              set(next.length ? { ...rest, askIf: next } : rest);
            }}
          />
          {SAFEGUARDS[safeguard]}
        </label>
      ))}
    </>
  );
}

function Thresholds({ rule, set }: { rule: Extract<MatchRule, { by: 'likeness' }>; set: (rule: MatchRule) => void }) {
  return (['ask', 'accept'] as const).map((word) => (
    <span key={word} className="w-[112px]">
      <TextField
        label={`${word} from`}
        type="number"
        min={0.01}
        max={1}
        step={0.01}
        value={rule[word]}
        onChange={({ target }) => set({ ...rule, [word]: Number(target.value) })}
      />
    </span>
  ));
}
