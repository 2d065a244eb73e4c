import { useCallback, useMemo, useState } from 'react';

const name = (key: string) => `grivo text ${key}`;

/** A text that is being written, kept by the browser under a key until it is taken back; null when there is none. */
export function useKeptText(key: string): [string | null, (text: string | null) => void] {
  const [text, setText] = useState(() => localStorage.getItem(name(key)));
  const keep = useCallback(
    (next: string | null) => {
      setText(next);
      try {
        if (next === null) localStorage.removeItem(name(key));
        else localStorage.setItem(name(key), next);
      } catch (error) {
        // A full store keeps nothing more; the text on the screen is still there.
        if (!(error instanceof DOMException)) throw error;
      }
    },
    [key],
  );
  return [text, keep];
}

/** What a person is changing, kept as {@link useKeptText} keeps a text. */
export function useKept<T extends object>(key: string): [T | null, (value: T | null) => void] {
  const [text, keep] = useKeptText(key);
  return [
    useMemo(() => (text === null ? null : (JSON.parse(text) as T)), [text]),
    useCallback(
      (value) => keep(value === null || Object.keys(value).length === 0 ? null : JSON.stringify(value)),
      [keep],
    ),
  ];
}
