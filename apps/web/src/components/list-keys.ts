import { useLayoutEffect } from 'react';

/** Whether a key belongs to what is typed into or pressed, or to a dialog, and so not to the page. */
export function keysAreTaken(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  return (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) ||
    target.isContentEditable ||
    (event.key === 'Enter' && target.closest('a, button, summary') !== null) ||
    target.closest('[role="dialog"], [role="menu"]') !== null
  );
}

/** The keys of a page, from the moment it can be seen. */
export function usePageKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      const act = keys[event.key];
      if (!act || keysAreTaken(event)) return;
      event.preventDefault();
      act(event);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
