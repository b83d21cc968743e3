import type { ColourMark as Mark } from '@haycart/core';

const GROUNDS: Record<Mark, string> = {
  moss: 'bg-mark-moss',
  straw: 'bg-mark-straw',
  brick: 'bg-mark-brick',
  slate: 'bg-mark-slate',
  plum: 'bg-mark-plum',
  clay: 'bg-mark-clay',
  teal: 'bg-mark-teal',
  stone: 'bg-mark-stone',
};

/** The mark of an option, a tag or a list; always beside its name. */
export function ColourMark({ colour }: { colour: Mark | null | undefined }) {
  return (
    <span
      aria-hidden
      className={`inline-block size-2.5 flex-none rounded-sm ${colour ? GROUNDS[colour] : 'border border-line'}`}
    />
  );
}

/** A name with its mark. */
export function Chip({
  name,
  colour,
  remove,
}: {
  name: string;
  colour?: Mark | null | undefined;
  remove?: () => void;
}) {
  return (
    <span className="inline-flex min-h-[22px] items-center gap-1.5 rounded border border-line bg-raised px-1.5 text-small">
      {colour && <ColourMark colour={colour} />}
      {name}
      {remove && (
        <button
          type="button"
          aria-label={`Take ${name} off`}
          onClick={remove}
          className="-mr-0.5 px-0.5 text-muted hover:text-ink"
        >
          ×
        </button>
      )}
    </span>
  );
}
