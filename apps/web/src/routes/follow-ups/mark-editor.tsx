import { fixedText, type Value, type Write } from '@haycart/core';
import { useWords } from '../../api/words';
import { MarksChoice } from '../../components/marks-choice';
import { SelectField } from '../../components/text-field';
import { PartsCell } from '../parts-cell';
import type { EditorProps, FollowUpEditor } from './editor';

/** How tags, or lists, are added and removed: fixed ones by choice, others by what was answered. */
export function markEditor(of: 'tag' | 'list', field: 'tags' | 'lists'): Pick<FollowUpEditor, 'Editor' | 'begin'> {
  const fits = ({ record }: Write) => of === 'tag' || record === 'contact';
  return {
    Editor: (props) => <MarkEditor {...props} field={field} writes={props.definition.writes.filter(fits)} />,
    begin: (writes) => {
      const first = writes.find(fits);
      return first ? { do: of, on: first.as, add: [{ parts: [] }] } : null;
    },
  };
}

function MarkEditor({
  followUp,
  put,
  definition,
  destination,
  incoming,
  sample,
  field,
  writes,
}: EditorProps & { field: 'tags' | 'lists'; writes: readonly Write[] }) {
  const words = useWords();
  const record = writes.find(({ as }) => as === followUp.on)?.record ?? 'contact';
  const short = followUp[field] as string[] | undefined;
  const added = short ? short.map(fixed) : valuesOf(followUp.add);
  const removed = valuesOf(followUp.remove);
  const answered = added.filter((one) => fixedText(one) === null || !one.parts.length);
  const set = (add: Value[], remove: Value[]) => {
    const { [field]: _, add: __, remove: ___, ...rest } = followUp;
    // One that adds nothing yet stays to be filled in.
    const adds = add.length || !remove.length ? { add: add.length ? add : [{ parts: [] }] } : {};
    put({ ...rest, do: followUp.do, ...adds, ...(remove.length ? { remove } : {}) });
  };
  return (
    <>
      <span className="text-muted">Of</span>
      <SelectField
        label="Of which record"
        hideLabel
        value={followUp.on}
        onChange={({ target }) => put({ ...followUp, on: target.value })}
      >
        {writes.map(({ as, record: kind }) => (
          <option key={as} value={as}>
            the {words.one(kind)}
          </option>
        ))}
      </SelectField>
      <span aria-hidden className="max-sm:hidden" />
      <div className="grid gap-3 sm:grid-cols-2">
        <MarksChoice
          destination={destination}
          record={record}
          field={field}
          label="Add"
          chosen={fixedOf(added)}
          change={(next = []) => set([...next.map(fixed), ...answered.filter(({ parts }) => parts.length)], removed)}
        />
        <MarksChoice
          destination={destination}
          record={record}
          field={field}
          label="Remove"
          chosen={fixedOf(removed)}
          change={(next = []) =>
            set(
              added.filter(({ parts }) => parts.length),
              next.map(fixed),
            )
          }
        />
      </div>
      <span className="text-muted">Add by answer</span>
      <div className="rounded border border-faint bg-raised px-1.5 py-1">
        <PartsCell
          value={answered[0] ?? { parts: [] }}
          change={(value) =>
            set([...fixedOf(added).map(fixed), ...(value.parts.length ? [value] : []), ...answered.slice(1)], removed)
          }
          earlier={definition.writes}
          incoming={incoming}
          sample={sample}
          label={`${field} by answer`}
        />
      </div>
    </>
  );
}

function valuesOf(values: unknown): Value[] {
  return (values as Value[] | undefined) ?? [];
}

function fixed(key: string): Value {
  return { parts: [{ text: key }] };
}

function fixedOf(values: readonly Value[]): string[] {
  return values.flatMap((one) => (one.parts.length ? (fixedText(one) ?? []) : []));
}
