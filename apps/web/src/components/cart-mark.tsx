/** The mark of Hay Cart, in the colours of the theme. */
export function CartMark({ className }: { className?: string }) {
  return (
    <svg viewBox="0 0 36 32" fill="none" aria-hidden className={className}>
      <path d="M6 19C6 9 12 4 18 4s13 5 13 15z" fill="var(--color-straw)" />
      <path d="M12 17c0-5 2-9 4-11M18 17V5M24 17c0-5-2-9-4-11" stroke="#8a6a12" strokeWidth="1.4" />
      <g stroke="currentColor">
        <path d="M1 21l4-2h28" strokeWidth="2.2" strokeLinecap="round" />
        <circle cx="12" cy="25" r="5" fill="var(--color-sheet)" strokeWidth="2" />
        <circle cx="26" cy="25" r="5" fill="var(--color-sheet)" strokeWidth="2" />
        <path d="M12 20v10M7 25h10M26 20v10M21 25h10" strokeWidth="1.2" />
      </g>
    </svg>
  );
}
