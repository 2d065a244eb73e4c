import { useInfiniteQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useSettled } from '../design/useSettled.ts';
import { STANDINGS } from './briefActs.ts';
import { whole } from './read.ts';

/** What of a pipeline's briefs is looked at: which standing, which subject, and the one that is open, kept in the address. */
export function useBriefView(pipeline: string) {
  const [search, setSearch] = useSearchParams();
  const open = search.get('brief');
  const step = search.get('step');
  const standing = STANDINGS.find((one) => one === search.get('standing')) ?? null;
  const [typed, setTyped] = useState('');
  const find = useSettled(typed.trim(), 200);
  const sheet = useInfiniteQuery(whole.sheet(pipeline, standing, find));
  const pages = sheet.data?.pages;
  const rows = useMemo(() => pages?.flatMap((page) => page.rows) ?? [], [pages]);
  const columns = pages?.[0]?.columns ?? [];
  const put = useCallback(
    (next: Record<string, string | null>) =>
      setSearch(
        (before) => {
          for (const [name, value] of Object.entries({ show: 'briefs', ...next }))
            if (value === null) before.delete(name);
            else before.set(name, value);
          return before;
        },
        { replace: true },
      ),
    [setSearch],
  );
  // Keys come faster than the address is read again.
  const place = useRef({ open, step });
  place.current = { open, step };
  const choose = useCallback(
    (brief: string, step: string | null) => {
      place.current = { open: brief, step };
      put({ brief, step });
    },
    [put],
  );
  const move = (by: number) => {
    const at = rows.findIndex((row) => row.id === place.current.open);
    const next = rows[at === -1 ? 0 : Math.max(0, Math.min(rows.length - 1, at + by))];
    if (next) choose(next.id, place.current.step);
  };
  const across = (by: number) => {
    const { open, step } = place.current;
    if (!open || columns.length === 0) return;
    const here = columns.findIndex((column) => column.step === step);
    const next = columns[Math.max(0, Math.min(columns.length - 1, here === -1 ? (by > 0 ? 0 : -1) : here + by))];
    choose(open, next?.step ?? null);
  };
  return { sheet, rows, columns, open, step, standing, typed, setTyped, find, put, choose, move, across, place };
}

export type BriefView = ReturnType<typeof useBriefView>;
