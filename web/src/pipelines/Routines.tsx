import { Made, type Routine } from '@grivo/contract';
import { stepKinds } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Head, NameForm, Trouble } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { whole } from './read.ts';

/** What a new routine begins with. */
const FIRST = {
  grivo: 1,
  inputs: [{ name: 'subject', asks: 'What it is about', otherwise: null }],
  outputs: [],
  steps: [stepKinds['look up'].fresh('s1')],
};

/** Routines under the pipelines that use them: what each is given and gives, and who uses it. */
export function Routines() {
  const routines = useQuery(whole.routines());
  const language = useQuery(read.blogs()).data?.blogs[0]?.language ?? 'en';
  const [making, setMaking] = useState(false);
  const go = useNavigate();
  const make = useMutation({
    mutationFn: (name: string) =>
      call('POST', '/routines', {
        body: { name, document: { ...FIRST, language } },
        answer: Made,
      }),
    onSuccess: ({ id }) => {
      void queryClient.invalidateQueries({ queryKey: ['routines'] });
      void go(`/pipelines/routines/${id}`);
    },
  });
  const rows = routines.data?.routines;
  return (
    <section className="pt-8" aria-label="Routines">
      <Head
        title="Routines"
        right={
          <Button look="quiet" onClick={() => setMaking(!making)}>
            {making ? 'Not now' : 'Make a routine'}
          </Button>
        }
      />
      {making ? (
        <div className="pt-3">
          <NameForm
            does="Make it"
            busy={make.isPending}
            wrong={make.isError ? inWords(make.error) : null}
            onName={(name) => make.mutate(name)}
          />
        </div>
      ) : null}
      {routines.isError ? <Trouble>{inWords(routines.error)}</Trouble> : null}
      {rows?.length === 0 && !making ? (
        <p className="py-3 text-ink-3">None yet. Steps that several procedures share are kept here under a name.</p>
      ) : null}
      <ul>
        {rows?.map((routine) => (
          <Line key={routine.id} it={routine} />
        ))}
      </ul>
    </section>
  );
}

/** One routine: what it is given, what it gives, and who uses it. */
function Line({ it: { id, name, document, usedBy } }: { it: Routine }) {
  return (
    <li className="row grid min-h-12 grid-cols-[28%_1fr_auto] items-center">
      <span className="min-w-0 pr-4">
        <Link to={`/pipelines/routines/${id}`} className="brackets block truncate text-proc font-medium">
          {name}
        </Link>
        <span className="block text-small text-ink-3">{plural(document.steps.length, 'step')}</span>
      </span>
      <span className="min-w-0 truncate text-small text-ink-2">
        {document.inputs?.map((input) => input.name).join(', ') || 'nothing'} →{' '}
        {document.outputs?.join(', ') || 'nothing yet'}
      </span>
      <span className="text-small text-ink-2">
        {usedBy.length === 0 ? (
          <span className="text-ink-3">used by none</span>
        ) : (
          `used by ${usedBy.map((user) => user.name).join(', ')}`
        )}
      </span>
    </li>
  );
}
