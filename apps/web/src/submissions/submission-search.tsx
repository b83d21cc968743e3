import { Search, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { usePageKeys } from '../components/list-keys';
import { Key } from '../components/sheet';

const PAUSE_MS = 200;

/** The search of what was sent: asked for as one types, and reached with `/`. */
export function SubmissionSearch({ text, search }: { text: string; search: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => setTyped(text), [text]);
  useEffect(() => {
    if (typed.trim() === text) return;
    const timer = window.setTimeout(() => search(typed), PAUSE_MS);
    return () => window.clearTimeout(timer);
  }, [typed, text, search]);
  usePageKeys({ '/': () => box.current?.focus() });
  return (
    <div className="relative mb-2.5 flex-none">
      <Search className="pointer-events-none absolute top-2.5 left-3 size-4" aria-hidden />
      <input
        ref={box}
        type="search"
        aria-label="Find submissions"
        placeholder="Person, e-mail, company, any answer, or an id"
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') search(typed);
        }}
        className="h-9 w-full rounded border border-ink bg-raised pr-9 pl-9 [&::-webkit-search-cancel-button]:hidden"
      />
      {typed ? (
        <button
          type="button"
          aria-label="Search for nothing"
          onClick={() => {
            setTyped('');
            search('');
            box.current?.focus();
          }}
          className="absolute top-1 right-1 flex size-7 items-center justify-center rounded text-muted hover:bg-hair"
        >
          <X className="size-4" aria-hidden />
        </button>
      ) : (
        <span className="pointer-events-none absolute top-2 right-2.5 max-md:hidden" aria-hidden>
          <Key>/</Key>
        </span>
      )}
    </div>
  );
}
