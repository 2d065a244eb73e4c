import type { Line } from '@grivo/core';
import { type RefObject, useEffect, useState } from 'react';
import { pickedSteps } from './lineCommands.ts';

/**
 * Which line the keys are at, and which are picked together.
 * @param list the element all lines stand in; each carries `data-row` and its number `data-line`, with its key
 */
export function useLineFocus(lines: readonly Line[], list: RefObject<HTMLElement | null>) {
  const [at, setAt] = useState<string | null>(null);
  const [from, setFrom] = useState<string | null>(null);
  const [wanted, setWanted] = useState<string | null>(null);
  const current = lines.some(({ key }) => key === at) ? at! : lines[0]!.key;
  const numberOf = (key: string) => list.current?.querySelector<HTMLElement>(`[data-line="${key}"]`) ?? null;
  // A line that was moved or just made is drawn first, then has the focus again.
  useEffect(() => {
    if (wanted === null) return;
    list.current?.querySelector<HTMLElement>(`[data-line="${wanted}"]`)?.focus();
    setWanted(null);
  }, [wanted, list]);
  return {
    current,
    /** Ids of the steps picked together. */
    picked: from === null ? [] : pickedSteps(lines, from, current),
    /** Those a command at this line is for. */
    meant: (line: Line) => {
      const own = pickedSteps(lines, from, current);
      return own.includes(line.key) ? own : line.step ? [line.key] : [];
    },
    picking: from !== null,
    leavePicked: () => setFrom(null),
    setAt,
    setWanted,
    numberOf,
    intoWords: (key: string) => list.current?.querySelector<HTMLElement>(`[data-row="${key}"] .word`)?.focus(),
    go: (line: Line | undefined, keepPicked: boolean) => {
      if (!line) return;
      setFrom(keepPicked ? (from ?? current) : null);
      setAt(line.key);
      numberOf(line.key)?.focus();
    },
  };
}

export type LineFocus = ReturnType<typeof useLineFocus>;
