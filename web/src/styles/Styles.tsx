import { type HouseStyle, Made } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Empty, Loading, NameForm, Trouble } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { useArchived } from '../keeping/useArchived.tsx';
import { Carried } from '../labels/Carried.tsx';
import { NoneCarries } from '../labels/NoneCarries.tsx';
import { plural } from '../words/figures.ts';
import { inARow } from '../words/list.ts';

/** All house styles: what each was learnt from, and who keeps to it. */
export default function Styles() {
  const styles = useQuery(read.styles());
  const [search, setSearch] = useSearchParams();
  const making = search.has('new');
  const { rows, words: archived } = useArchived(styles.data?.styles);
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">House style</h1>
        <span className="text-ink-3">{rows ? plural(rows.length, 'style') : ''}</span>
        {archived}
        <Button className="ml-auto" onClick={() => setSearch(making ? {} : { new: '' })}>
          {making ? 'Not now' : 'Make a house style'}
        </Button>
      </div>
      {making ? <NewOne /> : null}
      <div className="-mx-8 border-t border-ink px-8">
        {styles.isPending ? <Loading /> : null}
        {styles.isError ? <Trouble>{inWords(styles.error)}</Trouble> : null}
        {rows?.length === 0 && !making ? (
          <NoneCarries what="house style">
            <Empty
              next={
                <Button look="word" onClick={() => setSearch({ new: '' })}>
                  Make the first
                </Button>
              }
            >
              No house style yet. One says how a blog sounds, which words it uses, and what stands in every article.
            </Empty>
          </NoneCarries>
        ) : null}
        <ul>
          {rows?.map((row) => (
            <Line key={row.id} style={row} />
          ))}
        </ul>
      </div>
    </>
  );
}

function NewOne() {
  const go = useNavigate();
  const make = useMutation({
    mutationFn: (name: string) => call('POST', '/styles', { body: { name }, answer: Made }),
    onSuccess: ({ id }) => {
      void queryClient.invalidateQueries({ queryKey: ['styles'] });
      void go(`/styles/${id}?show=texts`);
    },
  });
  return (
    <div className="pb-5">
      <NameForm
        does="Make it"
        busy={make.isPending}
        wrong={make.isError ? inWords(make.error) : null}
        onName={(name) => make.mutate(name)}
      />
    </div>
  );
}

/** What keeps to a style, in a line. */
export function usersIn(usedBy: HouseStyle['usedBy']): string {
  return usedBy.length === 0 ? 'nothing keeps to it yet' : `for ${inARow(usedBy.map(({ name }) => name))}`;
}

function Line({ style }: { style: HouseStyle }) {
  const { words, never, standing, facts } = style.document;
  const holds = [
    ...(words.length + never.length > 0 ? [plural(words.length + never.length, 'word')] : []),
    ...(facts.length > 0 ? [plural(facts.length, 'fact')] : []),
    ...(standing.length > 0 ? [plural(standing.length, 'standing text')] : []),
  ];
  return (
    <li className="row flex min-h-14 flex-wrap items-center gap-x-4">
      <span className="w-[260px] min-w-0">
        <Link to={`/styles/${style.id}`} className="brackets block w-fit text-proc font-medium">
          {style.name}
        </Link>
        <span className="block truncate text-small text-ink-3">
          <Carried labels={style.labels} before=" · " />
          {style.note === '' ? `version ${style.version}` : style.note}
        </span>
      </span>
      <span className="min-w-0 flex-1 truncate text-ink-2">{usersIn(style.usedBy)}</span>
      <span className="w-[190px] text-small">
        {style.texts === 0 ? 'learnt from no text yet' : `learnt from ${plural(style.texts, 'text')}`}
      </span>
      <span className="w-[220px] text-right text-small text-ink-2">{holds.join(', ') || 'asks for nothing yet'}</span>
      <KeepMenu of="styles" it={style} />
    </li>
  );
}
