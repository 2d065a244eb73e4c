import { useState } from 'react';
import { Button } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { count } from '../words/figures.ts';

/**
 * What of a list is shown: what carries the label everything is looked at by, and is not archived, or all of it when that is
 * asked for; and the words that ask.
 */
export function useArchived<T extends { archived: boolean; labels: readonly string[] }>(
  every: readonly T[] | undefined,
) {
  const [shown, show] = useState(false);
  const { label } = useLabel();
  const all = every?.filter(({ labels }) => label === null || labels.includes(label));
  const away = all?.filter(({ archived }) => archived).length ?? 0;
  const rows = shown ? all : all?.filter(({ archived }) => !archived);
  const words =
    away === 0 ? null : (
      <Button look="quiet" anyone onClick={() => show(!shown)}>
        {shown ? 'Hide what is archived' : `${count(away)} archived`}
      </Button>
    );
  return { rows, words };
}
