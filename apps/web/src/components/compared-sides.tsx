import type { RecordSide } from '@haycart/api';
import { textDifference, type CandidateShare, type FieldDefinition, type TextPiece } from '@haycart/core';
import { Link } from 'react-router';
import { PLURALS } from '../api/record-kinds';
import { ago, recordNumber } from './format';
import { ShareBar } from './share-bar';
import { Sheet } from './sheet';

/** The fields that a compared thing is told by. */
const FIELDS_OF: Readonly<Record<string, readonly string[]>> = {
  given: ['first_name'],
  family: ['last_name'],
  name: ['name'],
  email: ['emails', 'email'],
  phone: ['phones', 'phone'],
  company: ['company_name'],
  country: ['country'],
  job: ['job_title'],
  domain: ['domains', 'domain'],
  value: ['value'],
  pipeline: ['pipeline'],
};
/** Told by others, or the record’s own affair. */
const NOT_SHOWN = new Set(['full_name', 'stage_since', 'closed_at', 'status', 'first_name', 'last_name', 'name']);
const NOTHING_TOLD = 'not told by both';
const HEAD = 'py-2 pr-4 text-left text-label font-semibold text-muted lg:whitespace-nowrap';

/** One of the two sides: a record, or what came in. */
export interface ShownSide {
  title: string;
  /** Where its title leads. */
  to?: string;
  texts: Readonly<Record<string, string>>;
  companies: readonly string[];
}

/** A record as one of two sides. */
export function sideOf(side: RecordSide): ShownSide {
  const deals = side.links.filter(({ kind }) => kind === 'deal').length;
  const last = `last active ${ago(side.lastActivity)}`;
  return {
    title: `${recordNumber(side.kind, side.number)}, ${deals ? `${deals === 1 ? '1 deal' : `${deals} deals`}, ` : ''}${last}`,
    to: `/records/${PLURALS[side.kind]}/${side.id}`,
    texts: side.texts,
    companies: side.links.filter(({ kind }) => kind === 'company').map(({ name }) => name),
  };
}

/** Two sides field by field, differences marked inside the text, with what each speaks for or against. */
export function ComparedSides({
  one,
  other,
  shares,
  fields,
}: {
  one: ShownSide;
  other: ShownSide;
  shares: readonly CandidateShare[];
  fields: readonly FieldDefinition[];
}) {
  const compared = shares.filter(({ of }) => of !== 'begin' && of !== 'related');
  const around = shares.filter(({ of }) => of === 'begin' || of === 'related');
  const told = new Set(compared.flatMap(({ of }) => FIELDS_OF[of] ?? []));
  const rest = fields.filter(
    ({ key }) =>
      !told.has(key) && !(compared.length && NOT_SHOWN.has(key)) && (one.texts[key] ?? '') + (other.texts[key] ?? ''),
  );
  return (
    <Sheet className="overflow-x-auto px-3.5">
      <table className="w-full max-lg:table-fixed lg:min-w-[700px]">
        <thead>
          <tr className="border-b border-line">
            <th className={HEAD}>Field</th>
            {[one, other].map(({ title, to }) => (
              <th key={title + to} className={HEAD}>
                {to ? (
                  <Link to={to} className="text-slate underline">
                    {title}
                  </Link>
                ) : (
                  title
                )}
              </th>
            ))}
            {compared.length > 0 && (
              <>
                <th className={`${HEAD} w-[166px] max-lg:hidden`}>Against, for (bits)</th>
                <th className={`${HEAD} max-lg:hidden`}>Why</th>
              </>
            )}
          </tr>
        </thead>
        <tbody>
          {compared.filter(isTold).map((share) => (
            <Row
              key={share.of}
              label={share.label}
              texts={[textOf(one, share.of), textOf(other, share.of)]}
              share={share}
            />
          ))}
          {rest.map(({ key, label }) => (
            <Row
              key={key}
              label={label}
              texts={[one.texts[key] ?? '', other.texts[key] ?? '']}
              blank={compared.length}
            />
          ))}
          {around.map((share) => (
            <tr key={share.of} className="border-b border-hair last:border-0">
              <td className="py-1.5 pr-4 text-muted" colSpan={3}>
                {share.label}
                <NarrowWhy share={share} />
              </td>
              <Why share={share} />
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

/** How much a line speaks for or against, and why; where there is no room for it, the words alone stand under its name. */
function Why({ share }: { share: CandidateShare }) {
  return (
    <>
      <td className="py-1.5 max-lg:hidden">
        <ShareBar bits={share.bits} />
      </td>
      <td className="min-w-[150px] py-1.5 text-small text-muted max-lg:hidden">{share.words}</td>
    </>
  );
}

function NarrowWhy({ share }: { share: CandidateShare }) {
  return <span className="block text-small lg:hidden">{share.words}</span>;
}

/** What neither side tells speaks neither for nor against, and fills no line. */
function isTold({ bits, words }: CandidateShare): boolean {
  return bits !== 0 || words !== NOTHING_TOLD;
}

function Row({
  label,
  texts: [one, other],
  share,
  blank = 0,
}: {
  label: string;
  texts: [string, string];
  share?: CandidateShare;
  blank?: number;
}) {
  const [a, b] = one && other ? textDifference(one, other) : [asPieces(one), asPieces(other)];
  return (
    <tr className="border-b border-hair last:border-0">
      <td className="py-1.5 pr-4 text-muted lg:whitespace-nowrap">
        {label}
        {share && <NarrowWhy share={share} />}
      </td>
      <td className="max-w-[240px] py-1.5 pr-4 [overflow-wrap:anywhere]">
        <Marked pieces={a} />
      </td>
      <td className="max-w-[240px] py-1.5 pr-4 [overflow-wrap:anywhere]">
        <Marked pieces={b} />
      </td>
      {share && <Why share={share} />}
      {blank > 0 && <td colSpan={2} className="max-lg:hidden" />}
    </tr>
  );
}

function Marked({ pieces }: { pieces: readonly TextPiece[] }) {
  if (!pieces.length) return <span className="text-muted">blank</span>;
  return pieces.map(({ text, differs }, index) =>
    differs ? (
      <mark key={index} className="bg-transparent text-ink underline decoration-brick decoration-2 underline-offset-4">
        {text}
      </mark>
    ) : (
      <span key={index}>{text}</span>
    ),
  );
}

function asPieces(text: string): TextPiece[] {
  return text ? [{ text, differs: false }] : [];
}

function textOf({ texts, companies }: ShownSide, of: string): string {
  if (of === 'company' && companies.length) return companies.join(', ');
  return (FIELDS_OF[of] ?? [of]).map((field) => texts[field]).find(Boolean) ?? '';
}
