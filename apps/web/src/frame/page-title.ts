import { useEffect, useState, type RefObject } from 'react';

const APPLICATION = 'Hay Cart';
const LONGEST = 80;

/**
 * Keeps the window’s title what the page’s first heading says, so that tabs and the way back can be told apart. Returns it,
 * for those who hear where they came to.
 */
export function usePageTitle(page: RefObject<HTMLElement | null>): string {
  const [title, setTitle] = useState(APPLICATION);
  useEffect(() => {
    const element = page.current!;
    let frame = 0;
    const name = () => {
      frame = 0;
      document.title = titleOf(element.querySelector('h1')?.textContent ?? '');
      setTitle(document.title);
    };
    const observer = new MutationObserver(() => {
      frame ||= requestAnimationFrame(name);
    });
    observer.observe(element, { childList: true, characterData: true, subtree: true });
    name();
    return () => {
      observer.disconnect();
      cancelAnimationFrame(frame);
      document.title = APPLICATION;
    };
  }, [page]);
  return title;
}

/** A heading as the title of a window, with the application’s name behind it. */
export function titleOf(heading: string): string {
  const text = heading.replace(/\s+/g, ' ').trim();
  if (!text) return APPLICATION;
  return `${text.length > LONGEST ? `${text.slice(0, LONGEST - 1).trimEnd()}…` : text}, ${APPLICATION}`;
}
