/** No share is drawn longer than this many bits; its number tells it whole. */
const WIDEST = 14;

/** What speaks for and against, in bits: a bar to the right or to the left of a line, with its number. */
export function ShareBar({ bits }: { bits: number }) {
  const width = `${(Math.min(WIDEST, Math.abs(bits)) / WIDEST) * 50}%`;
  const number = `${bits < -0.05 ? '−' : '+'}${Math.abs(bits).toFixed(1)}`;
  return (
    <span className="grid w-[150px] grid-cols-[44px_minmax(0,1fr)] items-center gap-1.5">
      <span className="text-right font-mono text-small tabular-nums text-muted">{number}</span>
      <span className="relative block h-4">
        <i className="absolute left-1/2 block h-full w-px bg-ink" />
        <i
          className={`absolute top-0.5 block h-3 ${bits < 0 ? 'right-1/2 bg-(--color-brick)' : 'left-1/2 bg-green'}`}
          style={{ width }}
        />
      </span>
    </span>
  );
}
