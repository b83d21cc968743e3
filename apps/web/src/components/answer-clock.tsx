import { Timer } from 'lucide-react';
import { exactTime, shortTime } from './format';

const SOON = 3_600_000;

/** How a promise to answer stands, in words and by how much it presses. */
export function answerState(due: string, now = Date.now()): { words: string; look: string } {
  const left = Date.parse(due) - now;
  if (left < 0) return { words: `unanswered since ${shortTime(due)}`, look: 'text-brick font-semibold' };
  const words =
    left < SOON ? `answer within ${Math.max(1, Math.round(left / 60_000))} min` : `answer by ${shortTime(due)}`;
  return { words, look: left < SOON ? 'font-semibold' : 'text-muted' };
}

/** Until when something is to be answered. */
export function AnswerClock({
  due,
  short = false,
  className = '',
}: {
  due: string;
  /** As its mark alone, where space is short; the words are read out and shown on hover. */
  short?: boolean;
  className?: string;
}) {
  const { words, look } = answerState(due);
  return (
    <span
      className={`inline-flex items-center gap-1 text-small whitespace-nowrap ${look} ${className}`}
      title={short ? words : `To be answered by ${exactTime(due)}`}
    >
      <Timer className="size-3.5 flex-none" aria-hidden />
      {short ? <span className="sr-only">{words}</span> : words}
    </span>
  );
}
