import { ago, exactTime, shortTime } from './format';

/** A time, short or relative, with the exact time on hover. */
export function Time({ at, relative = false, className }: { at: string; relative?: boolean; className?: string }) {
  return (
    <time dateTime={at} title={exactTime(at)} className={className}>
      {relative ? ago(at) : shortTime(at)}
    </time>
  );
}
