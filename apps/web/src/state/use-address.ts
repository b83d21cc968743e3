import { useNavigate, useSearchParams } from 'react-router';

/** Changes what stands in the address behind its path; it is one step back in the browser unless it replaces. */
export type ChangeAddress = (change: (params: URLSearchParams) => void, replace?: boolean) => void;

/**
 * What stands in the address of a page, how one part of it is set (an empty one is taken away), and how several are at once.
 * A change begins from the address as it is, not as it was drawn last, and is drawn at once: two that come quickly both hold,
 * and no letter typed into what the address holds is lost.
 */
export function useAddress(): [URLSearchParams, (name: string, value: string | null) => void, ChangeAddress] {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const change: ChangeAddress = (changeParams, replace = true) => {
    const next = new URLSearchParams(window.location.search);
    changeParams(next);
    void navigate(`?${next}`, { replace, flushSync: true });
  };
  const set = (name: string, value: string | null) => change((next) => setPart(next, name, value));
  return [params, set, change];
}

/** Sets one part of an address; an empty one is taken away. */
export function setPart(params: URLSearchParams, name: string, value: string | null): void {
  if (value) params.set(name, value);
  else params.delete(name);
}
