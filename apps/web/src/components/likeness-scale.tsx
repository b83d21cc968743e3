import type { Thresholds } from '@haycart/core';

/** Where a probability stands between “different” and “the same”, with the two thresholds. */
export function LikenessScale({ probability, thresholds }: { probability: number; thresholds: Thresholds }) {
  const { accept, ask } = thresholds;
  const at = (value: number) => `${Math.min(98, Math.max(2, value * 100))}%`;
  const text = probability.toFixed(2);
  return (
    <div
      className="relative h-14 text-small"
      role="img"
      aria-label={`${text} of 1; asked from ${ask}, accepted from ${accept}`}
    >
      <div className="absolute inset-x-0 top-6 h-[2px] bg-ink" />
      <span className="absolute left-0 top-9 text-muted max-lg:hidden">different</span>
      {[
        ['ask', ask],
        ['accept', accept],
      ].map(([word, value]) => (
        <span key={word} className="absolute" style={{ left: at(Number(value)) }}>
          <i className="absolute top-4 block h-4 w-[2px] bg-ink" />
          <span
            className={`absolute top-9 whitespace-nowrap text-muted ${Number(value) > 0.85 ? 'right-0' : '-translate-x-1/2'}`}
          >
            {word} from {Number(value).toFixed(2)}
          </span>
        </span>
      ))}
      <span className="absolute" style={{ left: at(probability) }}>
        <b
          className={`absolute -top-0.5 tabular-nums ${probability > 0.9 ? '-translate-x-[85%]' : '-translate-x-1/2'}`}
        >
          {text}
        </b>
        <i className="absolute top-4 block size-4 -translate-x-1/2 border-2 border-ink bg-straw" />
      </span>
    </div>
  );
}
