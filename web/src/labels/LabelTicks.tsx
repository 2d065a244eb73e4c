import { type LabelledNoun, Made } from '@grivo/contract';
import { useMutation, useMutationState, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Field, Tick, Trouble } from '../design/index.ts';

interface Press {
  label: string;
  on: boolean;
}

interface TicksProps {
  noun: LabelledNoun;
  it: { id: string; labels: readonly string[] };
  onLeave: () => void;
}

async function again(): Promise<void> {
  for (const key of ['articles', 'slots', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
  const own = ['labels', 'blogs', 'sources', 'source', 'pipelines', 'pipeline', 'article'];
  await Promise.all(own.map((key) => queryClient.invalidateQueries({ queryKey: [key] })));
}

/** The labels of one thing: ticked, taken off, and made. */
export function LabelTicks({ noun, it, onLeave }: TicksProps) {
  const all = useQuery(read.labels()).data?.labels ?? [];
  const [name, setName] = useState('');
  const { put, isOn } = usePresses(noun, it);
  const make = useMutation({
    mutationFn: async () => {
      const { id } = await call('POST', '/labels', { body: { name: name.trim() }, answer: Made });
      await call('POST', `/labels/${id}/on`, { body: { noun, id: it.id, on: true } });
    },
    onSuccess: () => setName(''),
    onSettled: again,
  });
  return (
    <form
      className="text-small"
      aria-label={`Labels of this ${noun}`}
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (name.trim() !== '') make.mutate();
      }}
    >
      <p className="text-ink-3">
        A label names a client or a theme. At the top of the page you choose to see only what carries it.
      </p>
      {all.length > 0 ? (
        <ul className="flex flex-wrap gap-x-6 gap-y-1 pt-2">
          {all.map((one) => (
            <li key={one.id}>
              <Tick label={one.name} state={isOn(one.id)} onChange={(on) => put.mutate({ label: one.id, on })}>
                {one.name}
              </Tick>
            </li>
          ))}
        </ul>
      ) : null}
      <div className="flex items-end gap-4 pt-2">
        <div className="w-64">
          <Field label="A new label" value={name} onChange={(event) => setName(event.target.value)} />
        </div>
        <Button look="line" type="submit" disabled={name.trim() === ''} busy={make.isPending ? 'Making' : null}>
          Make it and put it on
        </Button>
        <Button look="word" onClick={onLeave}>
          Done
        </Button>
      </div>
      {make.isError || put.isError ? <Trouble>{inWords(make.error ?? put.error)}</Trouble> : null}
    </form>
  );
}

/** Ticks as they were pressed, one after the other; each shows at once, and lasts until the thing was read again. */
function usePresses(noun: LabelledNoun, it: TicksProps['it']) {
  const put = useMutation({
    mutationKey: ['label on', it.id],
    scope: { id: `label on ${it.id}` },
    mutationFn: ({ label, on }: Press) => call('POST', `/labels/${label}/on`, { body: { noun, id: it.id, on } }),
    onSettled: again,
  });
  const pressed = useMutationState({
    filters: { mutationKey: ['label on', it.id], status: 'pending' },
    select: ({ state }) => state.variables as Press,
  });
  return {
    put,
    isOn: (label: string) => pressed.findLast((press) => press.label === label)?.on ?? it.labels.includes(label),
  };
}
