import type { Thresholds } from '@haycart/core';

const HEIGHT = 120;
/** Below this probability nearly all pairs lie: they would dwarf the rest. */
const FROM = 5;

/** How many pairs have which probability, and where the thresholds part them: asked half filled, accepted filled. */
export function ScoreChart({ scores, thresholds }: { scores: readonly number[]; thresholds: Thresholds }) {
  const bars = scores.slice(FROM);
  const most = Math.max(1, ...bars);
  const colour = (hundredth: number) =>
    hundredth / 100 >= thresholds.accept
      ? 'var(--color-green)'
      : hundredth / 100 >= thresholds.ask
        ? 'var(--color-straw)'
        : 'var(--color-line)';
  const at = (value: number) => ((value * 100 - FROM) / (101 - FROM)) * 100;
  const total = bars.reduce((sum, times) => sum + times, 0);
  return (
    <figure>
      <div className="relative" style={{ height: HEIGHT + 22 }}>
        <svg
          viewBox={`0 0 ${bars.length} ${HEIGHT}`}
          preserveAspectRatio="none"
          className="absolute inset-x-0 top-0 w-full border-b border-ink"
          style={{ height: HEIGHT }}
          role="img"
          aria-label={`${total} pairs of at least ${FROM} %; most in one hundredth: ${most}`}
        >
          {bars.map((times, index) => {
            const height = times ? Math.max(2, Math.sqrt(times / most) * (HEIGHT - 8)) : 0;
            return (
              <rect
                key={index}
                x={index + 0.08}
                y={HEIGHT - height}
                width={0.84}
                height={height}
                fill={colour(index + FROM)}
              />
            );
          })}
        </svg>
        {(['ask', 'accept'] as const).map((word) => (
          <span key={word} className="absolute top-0" style={{ left: `${at(thresholds[word])}%`, height: HEIGHT }}>
            <i className="block h-full w-[2px] bg-ink" />
            <span
              className={`absolute top-full mt-0.5 whitespace-nowrap text-small text-muted ${word === 'accept' ? '-translate-x-full' : ''}`}
            >
              {word} {thresholds[word].toFixed(2)}
            </span>
          </span>
        ))}
      </div>
      <figcaption className="mt-1 text-small text-muted">
        Pairs by probability, from {FROM} % on, decided ones too; heights grow with the square root, so that few are
        seen beside many.
      </figcaption>
    </figure>
  );
}
