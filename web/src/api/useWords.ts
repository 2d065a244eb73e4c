import { useRef, useState } from 'react';

/**
 * Words of something changed one by one, however quickly: each shows at once, is sent by itself and in order, and none is
 * lost to the answer of the one before.
 * @param now what is there, as it was read last
 * @param send sends some words and reads the thing again
 */
export function useWords<T extends object>(now: T, send: (words: Partial<T>) => Promise<unknown>) {
  const [own, setOwn] = useState<Partial<T>>({});
  const [error, setError] = useState<Error | null>(null);
  const waiting = useRef<Partial<T>>({});
  const sending = useRef(false);
  const shown = useRef<T>(now);
  shown.current = { ...now, ...own };

  const sendAll = async () => {
    if (sending.current) return;
    sending.current = true;
    try {
      while (Object.keys(waiting.current).length > 0) {
        const words = waiting.current;
        waiting.current = {};
        await send(words);
      }
      setError(null);
    } catch (failed) {
      waiting.current = {};
      setError(failed instanceof Error ? failed : new Error(String(failed)));
    } finally {
      sending.current = false;
      setOwn({});
    }
  };
  return {
    /** With the words that are on their way. */
    words: shown.current,
    error,
    /** Changes words: by what they are to be, or by what they are once all before them is said. */
    put(change: Partial<T> | ((before: T) => Partial<T>)) {
      const words = typeof change === 'function' ? change(shown.current) : change;
      shown.current = { ...shown.current, ...words };
      waiting.current = { ...waiting.current, ...words };
      setOwn((before) => ({ ...before, ...words }));
      void sendAll();
    },
  };
}
