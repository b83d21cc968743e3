import type { FieldUse } from '@haycart/api';
import { hasOptions } from '@haycart/core';
import { List, Settings2, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { IconButton } from '../components/button';
import { exactTime, percent } from '../components/format';
import { Time } from '../components/time';
import { CopyKey } from '../components/copy-key';
import { TYPE_WORDS } from '../components/field-words';
import { FieldDialog } from './field-dialog';
import { OptionsDialog } from '../components/options-dialog';
import { RetireFieldDialog } from './retire-field-dialog';
import { SavedField } from './saved-field';
import { useFieldChange } from '../components/use-field-change';

export const FIELD_GRID =
  'grid grid-cols-[minmax(0,1fr)_64px_96px] items-center gap-x-3 px-3 lg:grid-cols-[minmax(0,1.2fr)_112px_60px_minmax(0,1.5fr)_104px_92px_minmax(0,1fr)_92px]';

/** One field: its label and need edited in their places, and what feeds it. */
export function FieldLine({
  field,
  labels,
  groups,
}: {
  field: FieldUse;
  labels: readonly string[];
  groups: readonly string[];
}) {
  const change = useFieldChange(field);
  const [listing, setListing] = useState(false);
  const [more, setMore] = useState(false);
  const [retiring, setRetiring] = useState(false);
  const isNamed = field.routes.length > 0 || field.forms.length > 0;
  const { label, type, required, kept = false, builtIn, records, filled, lastFilledAt, countedAt, key } = field;
  const always = builtIn && key === 'name';
  const share = records ? filled / records : 0;
  return (
    <div role="row" className={`${FIELD_GRID} min-h-9 border-b border-hair last:border-b-0`}>
      <span role="cell" className="-ml-2 min-w-0">
        <SavedField
          label={`Label of ${label}`}
          value={label}
          className="font-semibold"
          check={(text) => labelProblem(text, label, labels)}
          save={(text) => change.mutate({ label: text })}
        />
        <span className="-mt-1 block truncate px-2 pb-1 text-small text-muted lg:hidden">
          {TYPE_WORDS[type]}, {percent(share)} filled, <FedBy field={field} />
        </span>
      </span>
      <span role="cell" className="truncate text-muted max-lg:hidden">
        {TYPE_WORDS[type]}
      </span>
      <span role="cell" className="flex justify-center">
        <input
          type="checkbox"
          aria-label={`${label} is needed`}
          className="size-4 cursor-pointer accent-green disabled:cursor-default"
          checked={required}
          disabled={kept || always || change.isPending}
          onChange={({ target }) => change.mutate({ required: target.checked })}
        />
      </span>
      <span role="cell" className="min-w-0 truncate max-lg:hidden">
        <FedBy field={field} />
      </span>
      <span role="cell" className="max-lg:hidden" title={countedAt ? `Counted ${exactTime(countedAt)}` : undefined}>
        <Fullness label={label} share={share} />
      </span>
      <span role="cell" className="text-right text-small text-muted max-lg:hidden">
        {lastFilledAt ? <Time at={lastFilledAt} /> : 'never'}
      </span>
      <span role="cell" className="min-w-0 max-lg:hidden">
        <CopyKey text={key} />
      </span>
      <span role="cell" className="flex justify-end">
        {hasOptions(field) && !builtIn && (
          <IconButton label={`Options of ${label}`} className="!size-7 text-muted" onClick={() => setListing(true)}>
            <List className="size-4" aria-hidden />
          </IconButton>
        )}
        <IconButton label={`More about ${label}`} className="!size-7 text-muted" onClick={() => setMore(true)}>
          <Settings2 className="size-4" aria-hidden />
        </IconButton>
        {!builtIn && (
          <IconButton
            label={`Take ${label} out of use`}
            className="!size-7 text-muted"
            disabled={change.isPending}
            onClick={() => (isNamed ? setRetiring(true) : change.mutate({ retired: true }))}
          >
            <Trash2 className="size-3.5" aria-hidden />
          </IconButton>
        )}
      </span>
      {more && <FieldDialog field={field} groups={groups} close={() => setMore(false)} />}
      {retiring && <RetireFieldDialog field={field} close={() => setRetiring(false)} />}
      {listing && <OptionsDialog field={field} close={() => setListing(false)} />}
    </div>
  );
}

function FedBy({ field: { routes, forms, kept, records, filled } }: { field: FieldUse }) {
  const [first, ...others] = routes;
  const asking = forms.map(({ name }) => name);
  if (first)
    return (
      <span
        title={[
          routes.map(({ name }) => name).join(', '),
          ...(asking.length ? [`asked by ${asking.join(', ')}`] : []),
        ].join('; ')}
      >
        <Link to={`/routes/${first.id}`} className="text-slate hover:underline">
          {first.name}
        </Link>
        {others.length > 0 && <span className="text-muted"> + {others.length}</span>}
      </span>
    );
  if (kept) return <span className="text-muted">kept by Hay Cart</span>;
  return (
    <span className={records > 0 && filled === 0 ? 'text-brick' : 'text-muted'}>
      no route{asking.length > 0 && `, asked by ${asking[0]}`}
    </span>
  );
}

/** How full a column is, as a bar and in percent. */
function Fullness({ label, share }: { label: string; share: number }) {
  return (
    <span className="flex items-center gap-2" title={`${percent(share)} of the records have a value for ${label}`}>
      <span aria-hidden className="h-1.5 flex-1 rounded-sm bg-hair">
        <span className="block h-full rounded-sm bg-green" style={{ width: `${share * 100}%` }} />
      </span>
      <span className="w-11 text-right">{percent(share)}</span>
    </span>
  );
}

function labelProblem(text: string, own: string, labels: readonly string[]): string | null {
  const plain = text.trim().toLowerCase();
  if (plain === '') return 'A field needs a label';
  return plain !== own.toLowerCase() && labels.some((label) => label.toLowerCase() === plain)
    ? 'Another field has this label'
    : null;
}
