import { useSearchParams } from 'react-router';

/** What stands in the address of a list, and how one part of it is set; an empty one is taken away. */
export function useAddress(): [URLSearchParams, (name: string, value: string | null) => void] {
  const [params, setParams] = useSearchParams();
  const set = (name: string, value: string | null) =>
    setParams(
      (before) => {
        if (value) before.set(name, value);
        else before.delete(name);
        return before;
      },
      { replace: true },
    );
  return [params, set];
}
