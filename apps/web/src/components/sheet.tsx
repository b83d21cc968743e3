import type { ReactNode } from 'react';

/** A sheet of paper on the ground: what holds content. */
export function Sheet({ className = '', children }: { className?: string; children: ReactNode }) {
  return <section className={`rounded border border-line bg-sheet ${className}`}>{children}</section>;
}

/** The heading of a page with what stands beside it, and its actions at the right. */
export function PageHead({ title, aside, children }: { title: ReactNode; aside?: ReactNode; children?: ReactNode }) {
  return (
    <header className="mb-3 flex min-h-9 flex-none flex-wrap items-center gap-x-4 gap-y-2">
      <h1 className="text-[26px] leading-8">{title}</h1>
      {aside !== undefined && <div className="text-muted">{aside}</div>}
      <div className="ml-auto flex flex-wrap gap-2 max-sm:w-full">{children}</div>
    </header>
  );
}

/** A field key, payload text or number that machines read. */
export function Mono({ children, className = '' }: { children: ReactNode; className?: string }) {
  return <span className={`font-mono text-[12.5px] ${className}`}>{children}</span>;
}

/** A key of the keyboard. */
export function Key({ children }: { children: ReactNode }) {
  return (
    <kbd className="rounded border border-b-2 border-line bg-raised px-1 font-mono text-[11px] text-muted">
      {children}
    </kbd>
  );
}
