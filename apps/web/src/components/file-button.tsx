import { useRef, type ReactNode } from 'react';
import { Button } from './button';

/** A button that asks for a file; the same one can be chosen again. */
export function FileButton({
  label,
  accept,
  disabled = false,
  choose,
  children,
}: {
  /** What the file is, for screen readers. */
  label: string;
  accept: string;
  disabled?: boolean;
  choose: (file: File) => void;
  children: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="sr-only"
        aria-label={label}
        tabIndex={-1}
        onChange={({ target }) => {
          const chosen = target.files?.[0];
          target.value = '';
          if (chosen) choose(chosen);
        }}
      />
      <Button onClick={() => input.current?.click()} disabled={disabled}>
        {children}
      </Button>
    </>
  );
}
