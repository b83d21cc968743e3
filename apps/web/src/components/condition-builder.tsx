import {
  firstTestFor,
  testNamed,
  testsFor,
  type Clause,
  type ConditionOn,
  type FieldDefinition,
  type FieldPart,
  type JsonValue,
  type RecordCondition,
} from '@haycart/core';
import { Plus, X } from 'lucide-react';
import { Button, IconButton } from './button';
import { ChooseSeveral } from './field-input';
import { FilterOptions } from './list-filter';

type Group = { all: RecordCondition[] } | { any: RecordCondition[] } | { not: { any: RecordCondition[] } };

const SELECT = 'h-8 min-w-0 cursor-pointer rounded border-[1.5px] border-line bg-raised px-1.5';

/** What a condition may name. */
export interface ConditionTerms {
  fields: readonly FieldDefinition[];
  teams: readonly { key: string; name: string }[];
}

/** The condition builder: groups of tests, each joined by all, any or none. Anything typed holds at once. */
export function ConditionBuilder({
  condition,
  change,
  terms,
  lead = 'Show where',
}: {
  condition: RecordCondition;
  change: (condition: RecordCondition) => void;
  terms: ConditionTerms;
  /** How the sentence begins that the tests go on. */
  lead?: string;
}) {
  return <GroupEditor group={asGroup(condition)} change={change} terms={terms} lead={lead} depth={0} />;
}

/** A condition as a group, so that there is always somewhere to add to. */
export function asGroup(condition: RecordCondition): Group {
  if ('all' in condition || 'any' in condition) return condition;
  if ('not' in condition) {
    const inner = condition.not;
    return { not: { any: 'any' in inner ? inner.any : [inner] } };
  }
  return { all: [condition] };
}

function partsOf(group: Group): RecordCondition[] {
  if ('all' in group) return group.all;
  return 'any' in group ? group.any : group.not.any;
}

function withParts(group: Group, parts: RecordCondition[]): Group {
  if ('all' in group) return { all: parts };
  return 'any' in group ? { any: parts } : { not: { any: parts } };
}

function GroupEditor({
  group,
  change,
  terms,
  lead,
  depth,
  remove,
}: {
  group: Group;
  change: (group: Group) => void;
  terms: ConditionTerms;
  lead: string;
  depth: number;
  remove?: () => void;
}) {
  const parts = partsOf(group);
  const joined = 'all' in group ? 'all' : 'any' in group ? 'any' : 'none';
  const put = (index: number, part: RecordCondition | null) =>
    change(withParts(group, part ? parts.with(index, part) : parts.toSpliced(index, 1)));
  const first = terms.fields[0]!;
  const join = (word: string) =>
    change(word === 'all' ? { all: parts } : word === 'any' ? { any: parts } : { not: { any: parts } });
  return (
    <div className={depth ? 'border-l-2 border-straw pl-3' : ''}>
      <div className="mb-2 flex items-center gap-2">
        <label className="flex items-center gap-2 text-muted">
          {depth ? 'where' : lead}
          <select
            aria-label="Joined by"
            className={SELECT}
            value={joined}
            onChange={({ target }) => join(target.value)}
          >
            <option value="all">all of these hold</option>
            <option value="any">any of these holds</option>
            <option value="none">none of these holds</option>
          </select>
        </label>
        {remove && (
          <IconButton label="Remove this group" className="ml-auto !size-7 text-muted" onClick={remove}>
            <X className="size-4" aria-hidden />
          </IconButton>
        )}
      </div>
      <ul className="flex flex-col gap-1.5">
        {parts.map((part, index) => (
          <li key={index}>
            {'of' in part ? (
              <ClauseEditor
                clause={part}
                change={(next) => put(index, next)}
                remove={() => put(index, null)}
                terms={terms}
              />
            ) : (
              <GroupEditor
                group={asGroup(part)}
                change={(next) => put(index, next)}
                terms={terms}
                lead={lead}
                depth={depth + 1}
                remove={() => put(index, null)}
              />
            )}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex gap-2">
        <Button
          onClick={() =>
            change(withParts(group, [...parts, { of: { field: first.key }, test: firstTestFor(first.type) }]))
          }
        >
          <Plus className="size-4" aria-hidden /> Test
        </Button>
        {depth < 3 && (
          <Button onClick={() => change(withParts(group, [...parts, { any: [] }]))}>
            <Plus className="size-4" aria-hidden /> Group
          </Button>
        )}
      </div>
    </div>
  );
}

function ClauseEditor({
  clause,
  change,
  remove,
  terms,
}: {
  clause: Clause<FieldPart>;
  change: (clause: Clause<FieldPart>) => void;
  remove: () => void;
  terms: ConditionTerms;
}) {
  const field = terms.fields.find(({ key }) => key === clause.of.field) ?? terms.fields[0]!;
  const tests = testsFor(field.type);
  const chooseField = (key: string) => {
    const next = terms.fields.find((one) => one.key === key)!;
    const fits = testNamed(clause.test)?.fits.includes(next.type);
    change({ of: { field: key }, test: fits ? clause.test : firstTestFor(next.type) });
  };
  const chooseTest = (name: string) => {
    const same = testNamed(name)?.wanted === testNamed(clause.test)?.wanted;
    change({ of: clause.of, test: name, ...(same && clause.value !== undefined ? { value: clause.value } : {}) });
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_28px] items-start gap-1.5 sm:grid-cols-[minmax(0,170px)_minmax(0,150px)_minmax(0,1fr)_28px]">
      <select
        aria-label="Field"
        className={SELECT}
        value={field.key}
        onChange={({ target }) => chooseField(target.value)}
      >
        {terms.fields.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
      </select>
      <IconButton label="Remove this test" className="!size-8 text-muted sm:order-last" onClick={remove}>
        <X className="size-4" aria-hidden />
      </IconButton>
      <select
        aria-label="Test"
        className={SELECT}
        value={clause.test}
        onChange={({ target }) => chooseTest(target.value)}
      >
        {tests.map(({ name, label }) => (
          <option key={name} value={name}>
            {label}
          </option>
        ))}
      </select>
      <Wanted clause={clause} field={field} change={change} terms={terms} />
    </div>
  );
}

function Wanted({
  clause,
  field,
  change,
  terms,
}: {
  clause: Clause<FieldPart>;
  field: FieldDefinition;
  change: (clause: Clause<FieldPart>) => void;
  terms: ConditionTerms;
}) {
  const kind = testNamed(clause.test)?.wanted ?? 'none';
  const put = (value: JsonValue | undefined) => change({ ...clause, value });
  const one = (index: number) => String([clause.value].flat()[index] ?? '');
  const box = `${SELECT} cursor-text`;
  switch (kind) {
    case 'none':
      return <span className="max-sm:hidden" />;
    case 'options':
      return (
        <ChooseSeveral
          field={field}
          chosen={[clause.value].flat().filter((key): key is string => typeof key === 'string')}
          change={(chosen) => put(chosen ?? [])}
          label="Wanted options"
        />
      );
    case 'team':
      return (
        <select aria-label="Team" className={SELECT} value={one(0)} onChange={({ target }) => put(target.value)}>
          <option value="">choose a team</option>
          {terms.teams.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      );
    case 'numbers':
      return (
        <span className="flex items-center gap-1.5">
          {[0, 1].map((index) => (
            <input
              key={index}
              aria-label={index ? 'To' : 'From'}
              className={`${box} w-full`}
              value={one(index)}
              onChange={({ target }) => put([0, 1].map((place) => (place === index ? target.value : one(place))))}
            />
          ))}
        </span>
      );
    case 'date':
      return (
        <input
          aria-label="Day"
          type="date"
          className={box}
          value={one(0)}
          onChange={({ target }) => put(target.value)}
        />
      );
    case 'days':
      return (
        <label className="flex items-center gap-1.5">
          <input
            aria-label="Days"
            inputMode="numeric"
            className={`${box} w-16 text-right`}
            value={one(0)}
            onChange={({ target }) => put(Number(target.value.replace(/\D/g, '')) || undefined)}
          />
          days
        </label>
      );
    default:
      // A text of which the values are known, such as a stage, is chosen by its name.
      if (field.options && (clause.test === 'is' || clause.test === 'is-not'))
        return (
          <select aria-label="Wanted" className={SELECT} value={one(0)} onChange={({ target }) => put(target.value)}>
            <FilterOptions any="choose" options={field.options.map(({ key, label }) => [key, label])} />
          </select>
        );
      return (
        <span className="flex items-center gap-1.5">
          <input
            aria-label="Wanted"
            className={`${box} w-full`}
            placeholder={field.type === 'money' ? 'GBP 1,200' : ''}
            value={one(0)}
            onChange={({ target }) => put(target.value)}
          />
          {kind === 'texts' && (
            <label
              className="flex flex-none items-center gap-1 text-small text-muted"
              title="Capitals count only where this is chosen"
            >
              <input
                type="checkbox"
                className="size-3.5 accent-green"
                checked={clause.caseSensitive ?? false}
                onChange={({ target }) => change({ ...clause, caseSensitive: target.checked })}
              />
              Aa
            </label>
          )}
        </span>
      );
  }
}

/** The parts of a condition that can be removed by themselves, with what is left without each. */
export function removableParts(
  condition: RecordCondition,
): { part: RecordCondition; rest: RecordCondition | undefined }[] {
  const group = asGroup(condition);
  const parts = partsOf(group);
  if ('not' in group || 'any' in group) return [{ part: condition, rest: undefined }];
  return parts.map((part, index) => {
    const rest = parts.toSpliced(index, 1);
    return { part, rest: rest.length ? withParts(group, rest) : undefined };
  });
}

/** A condition without the tests that are not finished yet, so that a list is not refused while somebody types. */
export function finished(condition: ConditionOn<FieldPart>): ConditionOn<FieldPart> | undefined {
  if ('all' in condition || 'any' in condition) {
    const parts = ('all' in condition ? condition.all : condition.any).flatMap((part) => finished(part) ?? []);
    if (!parts.length) return undefined;
    return 'all' in condition ? { all: parts } : { any: parts };
  }
  if ('not' in condition) {
    const inner = finished(condition.not);
    return inner && { not: inner };
  }
  const kind = testNamed(condition.test)?.wanted ?? 'none';
  const values = [condition.value].flat().filter((one) => one !== undefined && one !== null && one !== '');
  const needed = kind === 'none' ? 0 : kind === 'numbers' ? 2 : 1;
  return values.length >= needed ? condition : undefined;
}
