import { useId, useRef, useState } from 'react';

/** The text of one cell while it is typed, with what could stand there. */
export function CellEditor({
  first,
  suggested,
  commit,
  cancel,
}: {
  first: string;
  suggested: readonly string[];
  /** @param key The key that ended it, which says where to go next. */
  commit: (text: string, key: string, shiftKey?: boolean) => void;
  cancel: () => void;
}) {
  const [text, setText] = useState(first);
  const list = useId();
  const done = useRef(false);
  const end = (key: string, shiftKey = false) => {
    if (done.current) return;
    done.current = true;
    commit(text, key, shiftKey);
  };
  return (
    <>
      <input
        autoFocus
        aria-label="Cell"
        className="absolute inset-0 h-full w-full bg-raised px-2 outline-2 -outline-offset-2 outline-green"
        value={text}
        list={list}
        onChange={({ target }) => setText(target.value)}
        onBlur={() => end('')}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') {
            done.current = true;
            return cancel();
          }
          if (event.key !== 'Enter' && event.key !== 'Tab') return;
          event.preventDefault();
          end(event.key, event.shiftKey);
        }}
      />
      <datalist id={list}>
        {suggested.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}
