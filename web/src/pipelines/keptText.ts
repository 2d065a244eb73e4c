import { useCallback, useState } from 'react';

const name = (key: string) => `grivo text ${key}`;

/** A text that is being written, kept in the browser under a key until it is taken back; null when there is none. */
export function useKeptText(key: string): [string | null, (text: string | null) => void] {
  const [text, setText] = useState(() => sessionStorage.getItem(name(key)));
  const keep = useCallback(
    (next: string | null) => {
      setText(next);
      try {
        if (next === null) sessionStorage.removeItem(name(key));
        else sessionStorage.setItem(name(key), next);
      } catch (error) {
        // A full store keeps nothing more; the text on the screen is still there.
        if (!(error instanceof DOMException)) throw error;
      }
    },
    [key],
  );
  return [text, keep];
}
