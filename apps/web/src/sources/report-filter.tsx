import { listedFields, type FieldDefinition, type FieldOption, type RecordCondition } from '@haycart/core';
import { useQuery } from '@tanstack/react-query';
import { ListFilter as FilterMark } from 'lucide-react';
import { useState } from 'react';
import { fieldsQuery, intakeLinesQuery, intakeQuery, pipelinesQuery, teamsQuery } from '../api/queries';
import { useWords } from '../api/words';
import { Button } from '../components/button';
import { asGroup, ConditionBuilder, finished } from '../components/condition-builder';
import { FilterOptions } from '../components/list-filter';
import { Popover } from '../components/popover';
import { RemovableWord, RemovableWords } from '../components/removable-words';
import { ReportWays } from './report-ways';
import { NARROWED_KINDS, type NarrowedKind, type ReportNarrowing } from './use-narrowing';

/** What a report is about, as removable words; and behind a button the fields of deals, contacts and companies, and the intakes. */
export function ReportFilter({ narrowing }: { narrowing: ReportNarrowing }) {
  const words = useWords();
  const [kind, setKind] = useState<NarrowedKind>('deal');
  const [isOpen, setIsOpen] = useState(false);
  const terms = useTerms(kind, isOpen);
  // What is being typed may not be finished; reports are asked for what is.
  const [draft, setDraft] = useState<RecordCondition | null>(null);
  const intakes = useQuery({ ...intakeLinesQuery, enabled: isOpen }).data ?? [];
  const intake = useQuery({ ...intakeQuery(narrowing.intake), enabled: narrowing.intake !== '' }).data;
  const filter = narrowing.filters[kind];
  const choose = (next: NarrowedKind) => {
    setKind(next);
    setDraft(null);
  };
  return (
    <div className="mb-3 flex flex-wrap items-center gap-1.5">
      <Popover
        wide
        label="Filter"
        onOpenChange={(open) => {
          setIsOpen(open);
          setDraft(null);
        }}
        trigger={
          <Button className="!h-7">
            <FilterMark className="size-3.5" aria-hidden /> Filter
          </Button>
        }
      >
        <div className="flex flex-col gap-3">
          <label className="flex items-center gap-2 text-muted">
            What came through
            <select
              className="h-8 min-w-0 flex-1 cursor-pointer truncate rounded border-[1.5px] border-line bg-raised px-1.5 text-ink"
              value={narrowing.intake}
              onChange={({ target }) => narrowing.setIntake(target.value || null)}
            >
              <FilterOptions
                any="any intake"
                options={(intakes.length || !intake ? intakes : [intake]).map(({ key, name }) => [key, name])}
              />
            </select>
          </label>
          <div
            role="group"
            aria-label="Whose fields"
            className="flex self-start overflow-hidden rounded border border-line"
          >
            {NARROWED_KINDS.map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={one === kind}
                onClick={() => choose(one)}
                className={`px-3 py-1 ${one === kind ? 'bg-ink text-sheet' : 'bg-sheet hover:bg-raised'}`}
              >
                {words.Many(one)}
              </button>
            ))}
          </div>
          {terms.fields.length > 0 && (
            <ConditionBuilder
              key={kind}
              lead={`Only ${words.many(kind)} where`}
              condition={draft ?? asGroup(filter ?? { all: [] })}
              change={(next) => {
                setDraft(next);
                narrowing.setFilter(kind, finished(next));
              }}
              terms={terms}
            />
          )}
        </div>
      </Popover>
      {narrowing.intake && (
        <RemovableWord
          words={`Came through ${intake?.name ?? 'one intake'}`}
          remove={() => narrowing.setIntake(null)}
        />
      )}
      {NARROWED_KINDS.map((one) => (
        <WordsOf key={one} kind={one} narrowing={narrowing} />
      ))}
      <ReportWays />
    </div>
  );
}

function WordsOf({ kind, narrowing }: { kind: NarrowedKind; narrowing: ReportNarrowing }) {
  const filter = narrowing.filters[kind];
  const terms = useTerms(kind, filter !== undefined);
  const { One } = useWords();
  return (
    filter && (
      <RemovableWords of={One(kind)} filter={filter} terms={terms} change={(next) => narrowing.setFilter(kind, next)} />
    )
  );
}

/** The fields of a kind of record; stages and pipelines with their names. */
function useTerms(kind: NarrowedKind, isWanted: boolean) {
  const fields = useQuery(fieldsQuery).data ?? [];
  const teams = useQuery({ ...teamsQuery, enabled: isWanted }).data ?? [];
  const pipelines = useQuery({ ...pipelinesQuery, enabled: isWanted }).data ?? [];
  const ofDeals = pipelines.filter(({ record }) => record === kind);
  const known: Record<string, FieldOption[]> = {
    pipeline: ofDeals.map(({ key, name }) => ({ key, label: name })),
    stage: distinct(ofDeals.flatMap(({ stages }) => stages)).map(({ key, name }) => ({ key, label: name })),
    status: ['open', 'won', 'lost'].map((key) => ({ key, label: key })),
  };
  const withNames = (field: FieldDefinition) =>
    kind === 'deal' && field.builtIn && Object.hasOwn(known, field.key)
      ? { ...field, options: known[field.key]! }
      : field;
  return { fields: fields.length ? listedFields(kind, fields).map(withNames) : [], teams };
}

/** The first of each key. */
function distinct<One extends { key: string }>(all: readonly One[]): One[] {
  return [...new Map(all.toReversed().map((one) => [one.key, one])).values()].reverse();
}
