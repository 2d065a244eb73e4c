import { Hangs } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { call, inWords } from '../api/call.ts';
import { Button, Loading, Trouble } from '../design/index.ts';

/** What would go, and why it cannot where it cannot. */
export function Remove({
  path,
  instead,
  onLeave,
  onGone,
}: {
  /** Of the thing in the API. */
  path: string;
  /** What else can be done where it cannot be removed. */
  instead?: (again: () => void) => ReactNode;
  onLeave: () => void;
  onGone: () => void;
}) {
  const hangs = useQuery({
    queryKey: ['hangs', path],
    queryFn: () => call('GET', `${path}/hangs`, { answer: Hangs }),
    staleTime: 0,
    gcTime: 0,
  });
  const remove = useMutation({ mutationFn: () => call('DELETE', path), onSuccess: onGone });
  if (hangs.isPending) return <Loading rows={1} />;
  if (hangs.isError) return <Trouble>{inWords(hangs.error)}</Trouble>;
  const { name, with: goes, unless } = hangs.data;
  if (unless.length > 0)
    return (
      <div className="max-w-[720px] text-small">
        <p className="font-semibold">‘{name}’ cannot be removed yet.</p>
        <ul>
          {unless.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
        {instead?.(() => void hangs.refetch())}
        <Button look="word" onClick={onLeave}>
          Leave it
        </Button>
      </div>
    );
  return (
    <div className="text-small">
      <p>
        Remove ‘{name}’{goes.length > 0 ? `, and with it ${goes.join(', ')}` : ''}? This cannot be taken back.
      </p>
      <p className="flex gap-4 pt-1">
        <Button look="line" busy={remove.isPending ? 'Removing' : null} onClick={() => remove.mutate()}>
          Remove it
        </Button>
        <Button look="word" onClick={onLeave}>
          Leave it
        </Button>
      </p>
      {remove.isError ? <Trouble>{inWords(remove.error)}</Trouble> : null}
    </div>
  );
}
