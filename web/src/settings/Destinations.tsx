import {
  addressProblem,
  type Destination,
  type DestinationKind,
  Destinations as List,
  Made,
  TestLog,
} from '@grivo/contract';
import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { TestLines } from '../blogs/TestLines.tsx';
import { Button, ChoiceWord, Field, Head, Trouble } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { plural } from '../words/figures.ts';

const KINDS: { value: DestinationKind; says: string; does: string; asks: string }[] = [
  { value: 'mail', says: 'by mail', does: 'a mail with the text', asks: 'Its email address' },
  { value: 'message', says: 'by message', does: 'the text as JSON, as most chat tools take it', asks: 'Its address' },
  {
    value: 'hook',
    says: 'by a call of a program',
    does: 'the whole article as JSON, signed, for another program',
    asks: 'Its address',
  },
];
const kindOf = (kind: DestinationKind) => KINDS.find(({ value }) => value === kind)!;
const again = () => void queryClient.invalidateQueries({ queryKey: ['destinations'] });

/** Destinations: kept once, tested with a sample, used by name in steps and from articles. */
export function Destinations({ owner }: { owner: boolean }) {
  const list = useQuery(read.destinations());
  const all = list.data?.destinations ?? [];
  const [making, setMaking] = useState(false);
  return (
    <section aria-label="Destinations">
      <Head
        title="Destinations"
        right={
          owner ? (
            <Button look="quiet" onClick={() => setMaking(!making)}>
              {making ? 'Not now' : 'Add one'}
            </Button>
          ) : (
            plural(all.length, 'destination')
          )
        }
      />
      {all.length === 0 && !making ? (
        <p className="text-small text-ink-3">
          None yet. A destination is a mail address, a chat room or a program that a step or you can tell by its name.
        </p>
      ) : null}
      <ul>
        {all.map((one) => (
          <Line key={one.id} it={one} owner={owner} />
        ))}
      </ul>
      {making ? <NewOne onMade={() => setMaking(false)} /> : null}
      {list.isError ? <Trouble>{inWords(list.error)}</Trouble> : null}
    </section>
  );
}

function Line({ it, owner }: { it: Destination; owner: boolean }) {
  const [moving, setMoving] = useState(false);
  const test = useMutation({
    mutationFn: () => call('POST', `/destinations/${it.id}/test`, { answer: TestLog }),
    onSuccess: again,
  });
  const last = test.data?.lines ?? it.test?.lines;
  return (
    <li className="border-b border-rule-soft py-2">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <span className="text-proc font-medium">{it.name}</span>
        <span className="min-w-0 text-small break-all text-ink-3">
          {kindOf(it.kind).says}, {it.address}
        </span>
        {owner ? (
          <span className="ml-auto flex flex-wrap justify-end gap-x-4">
            <Button look="word" busy={test.isPending ? 'Telling it' : null} onClick={() => test.mutate()}>
              Send a sample
            </Button>
            <Button look="quiet" onClick={() => setMoving(!moving)}>
              {moving ? 'Leave it' : 'Another address'}
            </Button>
            <KeepMenu of="destinations" it={it} />
          </span>
        ) : null}
      </div>
      {it.note === '' ? null : <p className="text-small text-ink-2">{it.note}</p>}
      {moving ? <Move it={it} onDone={() => setMoving(false)} /> : null}
      {test.isError ? <Trouble>{inWords(test.error)}</Trouble> : null}
      {last ? <TestLines lines={last} /> : null}
    </li>
  );
}

/** What is typed of a destination; its name only where it is new. */
const Draft = z
  .object({
    name: z.string().trim().min(1, 'A name to tell it by.'),
    kind: z.enum(['mail', 'message', 'hook']),
    address: z.string(),
  })
  .superRefine(({ kind, address }, context) => {
    const problem = address.trim() === '' ? 'is empty' : addressProblem(kind, address);
    if (problem) context.addIssue({ code: 'custom', path: ['address'], message: `It ${problem}.` });
  });
type Draft = z.infer<typeof Draft>;

interface DestinationProps {
  first: Draft;
  /** Whether its name is asked for. */
  named: boolean;
  busy: boolean;
  error: Error | null;
  onDraft: (draft: Draft) => void;
}

/** The fields of a destination, checked as they are typed. */
function DestinationForm({ first, named, busy, error, onDraft }: DestinationProps) {
  const { register, handleSubmit, control, trigger, formState } = useForm<Draft>({
    defaultValues: first,
    resolver: zodResolver(Draft),
    mode: 'onChange',
  });
  const { errors, isValid } = formState;
  const [kind, address] = useWatch({ control, name: ['kind', 'address'] });
  return (
    <form className="pt-3" onSubmit={handleSubmit(onDraft)}>
      <div className="flex flex-wrap items-start gap-4">
        {named ? (
          <div className="w-48">
            <Field label="What you call it" autoFocus {...register('name')} />
          </div>
        ) : null}
        <span className="pt-7 text-small whitespace-nowrap">
          told{' '}
          <Controller
            control={control}
            name="kind"
            render={({ field }) => (
              <ChoiceWord
                label="How it is told"
                value={field.value}
                options={KINDS}
                onChoose={(next) => {
                  field.onChange(next);
                  void trigger('address');
                }}
              />
            )}
          />
        </span>
        <div className="w-72">
          <Field
            label={kindOf(kind).asks}
            wrong={address.trim() === '' ? null : errors.address?.message}
            {...register('address')}
          />
        </div>
        <Button className="mt-5" type="submit" look="line" disabled={!isValid} busy={busy ? 'Keeping' : null}>
          Keep it
        </Button>
      </div>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </form>
  );
}

function NewOne({ onMade }: { onMade: () => void }) {
  const make = useMutation({
    mutationFn: (body: Draft) => call('POST', '/destinations', { body, answer: Made }),
    onSuccess: () => {
      again();
      onMade();
    },
  });
  const first: Draft = { name: '', kind: 'message', address: '' };
  return <DestinationForm first={first} named busy={make.isPending} error={make.error} onDraft={make.mutate} />;
}

function Move({ it, onDone }: { it: Destination; onDone: () => void }) {
  const put = useMutation({
    mutationFn: ({ kind, address }: Draft) =>
      call('PUT', `/destinations/${it.id}`, { body: { kind, address }, rev: it.rev, answer: List }),
    onSuccess: (list) => {
      queryClient.setQueryData(['destinations'], list);
      onDone();
    },
  });
  const { name, kind, address } = it;
  return (
    <DestinationForm
      first={{ name, kind, address }}
      named={false}
      busy={put.isPending}
      error={put.error}
      onDraft={put.mutate}
    />
  );
}
