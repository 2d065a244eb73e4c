import { useQuery } from '@tanstack/react-query';
import { read } from '../api/queries.ts';

/**
 * The labels a thing carries, by name; nothing where it carries none.
 * @param before what stands between them and the words behind
 */
export function Carried({ labels, before = '' }: { labels: readonly string[]; before?: string }) {
  const all = useQuery(read.labels()).data?.labels ?? [];
  const names = all.filter(({ id }) => labels.includes(id)).map(({ name }) => name);
  if (names.length === 0) return null;
  return (
    <span className="text-small font-normal text-ink-2">
      {names.join(', ')}
      {before}
    </span>
  );
}
