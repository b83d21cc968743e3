import type { RowFigure } from '@haycart/api';
import { useState } from 'react';
import { count } from '../format';
import { Popover } from '../popover';
import { Time } from '../time';

/** A count that opens the submissions behind it; whichever is chosen becomes the sample. */
export function CountedSubmissions({
  figure,
  label,
  className,
  text = count(figure.count),
  id,
  show,
}: {
  figure: RowFigure;
  label: string;
  className: string;
  /** What stands on it; the count when not said. */
  text?: string;
  /** Where a key opens it, which therefore is no stop of its own. */
  id?: string;
  show: (submission: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const more = figure.count - figure.examples.length;
  return (
    <Popover
      label={label}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button
          type="button"
          id={id}
          tabIndex={id ? -1 : 0}
          title={label}
          aria-label={text === count(figure.count) ? `${label}: ${text}` : undefined}
          className={className}
        >
          {text}
        </button>
      }
    >
      <p className="mb-1 text-small text-muted">{label}; whichever you choose becomes the sample</p>
      <ul className="-mx-1.5">
        {figure.examples.map(({ submission, who, at }) => (
          <li key={submission}>
            <button
              type="button"
              className="flex h-8 w-full items-center gap-3 rounded px-1.5 text-left hover:bg-hair"
              onClick={() => {
                show(submission);
                setOpen(false);
              }}
            >
              <span className="min-w-0 flex-1 truncate">{who || 'unnamed'}</span>
              <Time at={at} className="flex-none text-small text-muted" />
            </button>
          </li>
        ))}
      </ul>
      {more > 0 && <p className="mt-1 text-small text-muted">and {count(more)} more</p>}
    </Popover>
  );
}
