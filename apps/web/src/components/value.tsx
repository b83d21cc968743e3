import type { FieldValue } from '@haycart/core';
import { showFieldValue, type FieldDefinition } from '@haycart/core';

/** A value as people read it; on one line where there is no room for more. */
export function Value({
  value,
  field,
  oneLine = false,
}: {
  value: FieldValue | null;
  field?: FieldDefinition | undefined;
  oneLine?: boolean;
}) {
  if (value === null) return <span className="text-faint">blank</span>;
  const text = showFieldValue(field, value);
  return oneLine ? <span title={text}>{text}</span> : <span className="break-words whitespace-pre-line">{text}</span>;
}

/** What a value was and what it becomes. The words are there for those who cannot see the strike. */
export function Change({
  before,
  after,
  note,
}: {
  before?: string | undefined;
  after?: string | undefined;
  note?: string | undefined;
}) {
  const same = before === after;
  return (
    <span className="min-w-0 break-words">
      {!same &&
        before !== undefined &&
        (before === '' ? (
          <span className="text-muted">blank</span>
        ) : (
          <del className="text-muted decoration-brick/60">
            <span className="sr-only">was </span>
            {before}
          </del>
        ))}{' '}
      {after !== undefined &&
        (same ? (
          <span>{after}</span>
        ) : after === '' ? (
          <span className="text-muted">blank</span>
        ) : (
          <ins className="rounded-sm bg-moss-soft px-1 no-underline">
            <span className="sr-only">becomes </span>
            {after}
          </ins>
        ))}
      {note && <span className="text-muted"> {note}</span>}
    </span>
  );
}
