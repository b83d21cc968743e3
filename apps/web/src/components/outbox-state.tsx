import type { OutboxLine, OutboxState } from '@haycart/api';
import { StateShape, type ShownState } from './state-shape';
import { Time } from './time';

/** What each state is called, and the shape that says the same. */
export const OUTBOX_WORDS: Record<OutboxState, { word: string; shape: ShownState }> = {
  done: { word: 'sent', shape: 'written' },
  waiting: { word: 'waiting', shape: 'waiting' },
  returned: { word: 'came back', shape: 'failed' },
  'given-up': { word: 'given up', shape: 'failed' },
  cancelled: { word: 'cancelled', shape: 'taken-back' },
};

/** What each kind of what is sent is called. */
export const OUTBOX_KINDS: Readonly<Record<string, string>> = {
  mail: 'Mail',
  chat: 'Message',
  text: 'Text message',
  post: 'Post',
};

/** How far something in the outbox came. */
export function OutboxStateWord({ state }: { state: OutboxState }) {
  const { word, shape } = OUTBOX_WORDS[state];
  return (
    <span className="inline-flex items-center gap-1.5">
      <StateShape state={shape} />
      {word}
    </span>
  );
}

const SOON_MS = 60_000;

function DueAt({ at }: { at: string | null }) {
  if (!at || Date.parse(at) - Date.now() < SOON_MS) return 'to be sent in a moment';
  return (
    <>
      to be sent <Time at={at} />
    </>
  );
}

/** What is worth knowing besides: when it was sent, when it is tried next, and why it was not sent yet. */
export function OutboxAbout({ line: { state, doneAt, dueAt, lastError } }: { line: OutboxLine }) {
  if (state === 'done' && doneAt) return <Time at={doneAt} />;
  return (
    <>
      {lastError}
      {state === 'waiting' && lastError && dueAt && (
        <>
          {' '}
          Next try: <Time at={dueAt} />.
        </>
      )}
      {state === 'waiting' && !lastError && <DueAt at={dueAt} />}
      {state === 'cancelled' && !lastError && 'not sent'}
    </>
  );
}
