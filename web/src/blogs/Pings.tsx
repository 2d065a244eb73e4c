import { type Blog, Pings, type PingsChange } from '@grivo/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { useWords } from '../api/useWords.ts';
import { Button, Head, TextWord, Trouble } from '../design/index.ts';
import { webAddress } from '../words/address.ts';
import { plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';

const keyOf = (id: string) => ['pings', id];

/** Whom the news of a blog are told to, and where other sites read the list of our articles on it. */
export function PingsOf({ blog: { id } }: { blog: Blog }) {
  const client = useQueryClient();
  const pings = useQuery({
    queryKey: keyOf(id),
    queryFn: () => call('GET', `/blogs/${id}/pings`, { answer: Pings }),
  });
  if (pings.isError) return <Trouble>{inWords(pings.error)}</Trouble>;
  if (!pings.data) return null;
  const took = (data: Pings) => client.setQueryData(keyOf(id), data);
  return (
    <div className="pt-6">
      <Head title="Telling others" />
      <Told id={id} pings={pings.data} took={took} />
      <Standings id={id} pings={pings.data} took={took} />
      <List id={id} list={pings.data.list} took={took} />
    </div>
  );
}

interface Part {
  id: string;
  pings: Pings;
  took: (data: Pings) => void;
}

function Told({ id, pings, took }: Part) {
  const { words, put, error } = useWords({ search: pings.search, hub: pings.hub }, async (body: PingsChange) =>
    took(await call('PATCH', `/blogs/${id}/pings`, { body, answer: Pings })),
  );
  const word = (name: 'search' | 'hub', label: string, hint: string) => (
    <TextWord
      label={label}
      value={words[name]}
      hint={hint}
      onPut={(text) => put({ [name]: text === '' ? '' : webAddress(text) })}
    >
      {words[name] !== '' ? words[name] : name === 'search' ? 'no search engine' : 'no hub'}
    </TextWord>
  );
  return (
    <>
      <p className="pt-2 text-proc leading-7">
        When an article is new, changed or gone,{' '}
        {word(
          'search',
          'Search engine that is told',
          'Where a search engine takes addresses by the IndexNow protocol; it says where that is. Empty for none.',
        )}{' '}
        is told by IndexNow, and{' '}
        {word('hub', 'Hub that is told', 'The WebSub hub that the feed of the blog names. Empty for none.')} by WebSub.
      </p>
      {pings.search !== '' && pings.codeFound === false ? (
        <p className="pt-1 text-small">
          The search engine asks the blog whether you may speak for it. Put a text file there that is read at{' '}
          <span className="break-all text-ink">{pings.codeAt}</span> and holds this alone:{' '}
          <code className="break-all">{pings.code}</code>
        </p>
      ) : null}
      {pings.search !== '' && pings.codeFound === true ? (
        <p className="pt-1 text-small text-ink-3">The blog shows the text that search engines ask for.</p>
      ) : null}
      {pings.hub !== '' && pings.feed === '' ? (
        <p className="pt-1 text-small">The front page of the blog names no feed, so the hub cannot be told of one.</p>
      ) : null}
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </>
  );
}

const NAMES = { search: 'The search engine', hub: 'The hub' } as const;

/** What came of telling. */
function Standings({ id, pings: { standings }, took }: Part) {
  const again = useMutation({
    mutationFn: () => call('POST', `/blogs/${id}/pings/again`, { answer: Pings }),
    onSuccess: took,
  });
  if (standings.length === 0) return null;
  return (
    <ul className="pt-1 text-small">
      {standings.map(({ kind, told, waiting, refused, lastAt, said }) => (
        <li key={kind} className="py-0.5">
          {NAMES[kind]}:{' '}
          {lastAt === null
            ? 'told of nothing yet'
            : `told of ${plural(told, 'article')}, last ${moment(new Date(lastAt).getTime(), Date.now())}`}
          {waiting > 0 ? `; ${waiting} on the way` : ''}
          {said === '' ? '' : `; ${refused > 0 ? `${refused} in vain: ` : ''}${said}`}.{' '}
          {refused > 0 ? (
            <Button look="word" busy={again.isPending ? 'Telling' : null} onClick={() => again.mutate()}>
              Tell it again
            </Button>
          ) : null}
        </li>
      ))}
      {again.isError ? <Trouble>{inWords(again.error)}</Trouble> : null}
    </ul>
  );
}

/** Where other sites read the list of our articles. */
function List({ id, list, took }: { id: string; list: Pings['list']; took: Part['took'] }) {
  const put = useMutation({
    mutationFn: (on: boolean) => call('PUT', `/blogs/${id}/list`, { body: { on }, answer: Pings }),
    onSuccess: took,
  });
  return (
    <div className="pt-2 text-small">
      {list ? (
        <>
          <p className="pb-1">
            Other sites read the list of our articles without a sign-in, as{' '}
            <a className="act quiet brackets" href={list.json}>
              JSON Feed
            </a>{' '}
            or as{' '}
            <a className="act quiet brackets" href={list.html}>
              a piece of HTML
            </a>
            .
          </p>
          <Button look="word" busy={put.isPending ? 'Taking them back' : null} onClick={() => put.mutate(false)}>
            Take these addresses back
          </Button>
        </>
      ) : (
        <Button look="word" busy={put.isPending ? 'Making them' : null} onClick={() => put.mutate(true)}>
          Let other sites read the list of our articles
        </Button>
      )}
      {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
    </div>
  );
}
