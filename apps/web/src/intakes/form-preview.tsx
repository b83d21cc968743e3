import type { IntakeShape } from '@haycart/api';
import { useState } from 'react';

const WIDTHS = { Phone: 390, Tablet: 768, Desktop: null } as const;

/** The real page of a form, at the width of a phone, a tablet or the room there is. */
export function FormPreview({ intake }: { intake: IntakeShape }) {
  const [width, setWidth] = useState<keyof typeof WIDTHS>('Desktop');
  return (
    <section aria-label="Preview of the form" className="flex min-w-0 flex-col">
      <div
        role="group"
        aria-label="Width"
        className="mb-2 inline-flex self-start overflow-hidden rounded border border-line bg-sheet"
      >
        {(Object.keys(WIDTHS) as (keyof typeof WIDTHS)[]).map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={width === name}
            onClick={() => setWidth(name)}
            className={`px-3 py-1 ${width === name ? 'bg-ink text-sheet' : 'hover:bg-raised'}`}
          >
            {name}
          </button>
        ))}
      </div>
      <iframe
        title={`The form ${intake.name}`}
        src={intake.address}
        className="h-[720px] max-w-full self-center border border-line bg-raised"
        style={{ width: WIDTHS[width] ?? '100%' }}
      />
    </section>
  );
}
