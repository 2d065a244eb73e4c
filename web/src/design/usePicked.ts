import { useCallback, useRef, useState } from 'react';

/** Rows of a list picked for one act: one by one, as a range, or all that match. */
export function usePicked(rows: readonly { id: string }[]) {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  /** All that match, those among them that no page has brought yet. */
  const [all, setAll] = useState(false);
  const last = useRef<string | null>(null);
  const shown = useRef(rows);
  shown.current = rows;
  const none = useCallback(() => {
    setPicked(new Set());
    setAll(false);
    last.current = null;
  }, []);
  const toggle = useCallback((id: string, range: boolean) => {
    setAll(false);
    const ids = shown.current.map((row) => row.id);
    const [from, to] = [range ? ids.indexOf(last.current ?? id) : -1, ids.indexOf(id)];
    last.current = id;
    setPicked((before) => {
      const after = new Set(before);
      if (from >= 0) for (const one of ids.slice(Math.min(from, to), Math.max(from, to) + 1)) after.add(one);
      else if (!after.delete(id)) after.add(id);
      return after;
    });
  }, []);
  return { picked, all, pickAll: () => setAll(true), pick: setPicked, none, toggle, any: picked.size > 0 || all };
}

export type Picked = ReturnType<typeof usePicked>;
