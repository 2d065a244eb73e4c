import { useEffect, useState } from 'react';

/** A value once it has not changed for a while: what is asked of the server while somebody types. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, settle] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => settle(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
