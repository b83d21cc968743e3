import type { ButtonHTMLAttributes } from 'react';

const LOOKS = {
  main: 'border-green bg-green text-on-green hover:brightness-110',
  quiet: 'border-line bg-transparent text-ink hover:border-muted hover:bg-raised',
  danger: 'border-line bg-transparent text-brick hover:border-brick',
} as const;

/** A button. Each view has at most one `main` action. */
export function Button({
  look = 'quiet',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS }) {
  return <button type={type} className={`${buttonLook(look)} ${className}`} {...rest} />;
}

/** The same look for links that act like buttons. */
export function buttonLook(look: keyof typeof LOOKS): string {
  return `inline-flex h-8 items-center gap-2 whitespace-nowrap rounded border-[1.5px] px-3 font-semibold transition-colors disabled:cursor-default disabled:opacity-50 ${LOOKS[look]}`;
}

/** A button that is only an icon; its label is read out and shown on hover. */
export function IconButton({
  label,
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { label: string }) {
  return (
    <button
      type={type}
      aria-label={label}
      title={label}
      className={`inline-flex size-8 flex-none items-center justify-center rounded text-ink hover:bg-hair disabled:cursor-default disabled:opacity-40 disabled:hover:bg-transparent ${className}`}
      {...rest}
    />
  );
}
