import { Made } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Empty, Loading, NameForm, Trouble } from '../design/index.ts';
import { useNow } from '../shell/useNow.ts';
import { count, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';

/** All sources: keyword lists for now. */
export default function Intake() {
  const sources = useQuery(read.sources());
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [search, setSearch] = useSearchParams();
  const making = search.has('new');
  const rows = sources.data?.sources;
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Intake</h1>
        <span className="text-ink-3">
          {rows
            ? `${plural(rows.length, 'keyword list')}, ${plural(
                rows.reduce((sum, row) => sum + row.items, 0),
                'phrase',
              )}`
            : ''}
        </span>
        <Button className="ml-auto" onClick={() => setSearch(making ? {} : { new: '' })}>
          {making ? 'Not now' : 'Make a keyword list'}
        </Button>
      </div>
      {making ? <NewList /> : null}
      <div className="-mx-8 border-t border-ink px-8">
        {sources.isPending ? <Loading /> : null}
        {sources.isError ? <Trouble>{inWords(sources.error)}</Trouble> : null}
        {rows?.length === 0 && !making ? (
          <Empty
            next={
              <Button look="word" onClick={() => setSearch({ new: '' })}>
                Make a keyword list
              </Button>
            }
          >
            Nothing to write about yet.
          </Empty>
        ) : null}
        <ul>
          {rows?.map((row) => (
            <li key={row.id} className="row grid h-12 grid-cols-[1fr_280px_240px_180px] items-center">
              <Link to={`/intake/${row.id}`} className="brackets w-fit max-w-full truncate text-proc font-medium">
                {row.name}
              </Link>
              <span className="flex items-center gap-3 text-small">
                <span className="relative block h-2 w-32 border border-rule-strong">
                  <span
                    className="absolute inset-y-0 left-0 bg-ink"
                    style={{ width: `${row.items === 0 ? 0 : (row.taken / row.items) * 100}%` }}
                  />
                </span>
                {count(row.taken)} of {count(row.items)} taken
              </span>
              <span className="text-small text-ink-3">{plural(row.items - row.taken, 'phrase')} left</span>
              <span className="fig text-right text-ink-3">
                {row.lastLook === null ? 'never looked at' : `looked ${moment(row.lastLook, now)}`}
              </span>
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}

function NewList() {
  const go = useNavigate();
  const make = useMutation({
    mutationFn: (name: string) => call('POST', '/sources', { body: { name }, answer: Made }),
    onSuccess: ({ id }) => {
      void queryClient.invalidateQueries({ queryKey: ['sources'] });
      void go(`/intake/${id}`);
    },
  });
  return (
    <NameForm
      does="Make it"
      busy={make.isPending}
      wrong={make.isError ? inWords(make.error) : null}
      onName={make.mutate}
    />
  );
}
