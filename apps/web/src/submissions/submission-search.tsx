import { Search, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { usePageKeys } from '../components/list-keys';

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
    <div className="relative col-span-2 min-w-0 flex-1 sm:max-w-[400px] sm:min-w-[240px]">
      <Search className="pointer-events-none absolute top-2 left-2.5 size-4 text-muted" aria-hidden />
      <input
        ref={box}
        type="search"
        aria-label="Find submissions"
        placeholder="Person, e-mail, company, any answer, id"
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') search(typed);
        }}
        className="h-8 w-full rounded border-[1.5px] border-line bg-raised pr-8 pl-8 [&::-webkit-search-cancel-button]:hidden"
      />
      {typed && (
        <button
          type="button"
          aria-label="Search for nothing"
          onClick={() => {
            setTyped('');
            search('');
            box.current?.focus();
          }}
          className="absolute top-0.5 right-0.5 flex size-7 items-center justify-center rounded text-muted hover:bg-hair"
        >
          <X className="size-4" aria-hidden />
        </button>
      )}
    </div>
  );
}
