import { useEffect, useState } from 'react';

/** A value once it has not changed for a while, in milliseconds: what is typed is not acted upon letter by letter. */
export function useRested<Value>(value: Value, restMs: number): Value {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setRested(value), restMs);
    return () => window.clearTimeout(timer);
  }, [value, restMs]);
  return rested;
}
