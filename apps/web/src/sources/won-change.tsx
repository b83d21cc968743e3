import { count, percent } from '../components/format';

/** By how much it is more or less than before; nothing where there was nothing. */
export function WonChange({ now, before }: { now: number; before: number | null }) {
  const change = before ? now / before - 1 : 0;
  const text = `${change > 0 ? '+' : '−'}${percent(Math.abs(change))}`;
  return (
    <span
      className={`ml-2 inline-block w-14 text-small max-sm:hidden ${change > 0 ? 'text-green' : 'text-brick'}`}
      title={before ? 'against the period that it is compared with' : undefined}
    >
      {Math.abs(change) < 0.005
        ? ''
        : Math.abs(change) > 9.99
          ? change > 0
            ? '× ' + count(Math.round(now / before!))
            : text
          : text}
    </span>
  );
}
