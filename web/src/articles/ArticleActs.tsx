import { Made, Share, Told } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient, read } from '../api/queries.ts';
import { TestLines } from '../blogs/TestLines.tsx';
import { Button, ChoiceWord, Trouble, useMay } from '../design/index.ts';
import { Remove } from '../keeping/Remove.tsx';
import { LabelTicks } from '../labels/LabelTicks.tsx';
import { copyText } from '../words/copy.ts';
import { plural } from '../words/figures.ts';
import { dayLong } from '../words/time.ts';

type Open = 'share' | 'tell' | 'label' | 'remove' | null;

/** What is done with an article as a whole: shown to somebody without an account, told somewhere, removed. */
export function ArticleActs({ id, labels }: { id: string; labels: readonly string[] }) {
  const [open, setOpen] = useState<Open>(null);
  const may = useMay();
  const go = useNavigate();
  const again = useMutation({
    mutationFn: () => call('POST', `/articles/${id}/pipeline`, { answer: Made, key: freshKey() }),
    onSuccess: ({ id: pipeline }) => {
      void queryClient.invalidateQueries({ queryKey: ['pipelines'] });
      void go(`/pipelines/${pipeline}`);
    },
  });
  const act = (which: Exclude<Open, null>, says: string) => (
    <button type="button" className="act quiet brackets" onClick={() => setOpen(open === which ? null : which)}>
      {says}
    </button>
  );
  return (
    <>
      <p className="flex flex-wrap gap-x-4 gap-y-2 pt-3 text-small leading-6 text-ink-3">
        <Link to="/articles" className="act quiet brackets">
          All articles
        </Link>
        {may ? act('share', 'Share it…') : null}
        {may ? act('tell', 'Tell somebody…') : null}
        {may ? act('label', 'Label it…') : null}
        {may ? (
          <button type="button" className="act quiet brackets" onClick={() => again.mutate()}>
            {again.isPending ? 'Making a pipeline' : 'Use its settings again'}
          </button>
        ) : null}
        {act('remove', 'Remove it…')}
      </p>
      {again.isError ? <Trouble>{inWords(again.error)}</Trouble> : null}
      {open === 'share' ? <ShareIt id={id} /> : null}
      {open === 'tell' ? <TellIt id={id} /> : null}
      {open === 'label' ? (
        <div className="pt-3">
          <LabelTicks noun="article" it={{ id, labels }} onLeave={() => setOpen(null)} />
        </div>
      ) : null}
      {open === 'remove' ? (
        <div className="pt-3">
          <Remove
            path={`/articles/${id}`}
            onLeave={() => setOpen(null)}
            onGone={() => {
              void queryClient.invalidateQueries();
              void go('/articles');
            }}
          />
          <p className="pt-2 text-small text-ink-3">
            It goes with the brief it was made from. What it cost stays in the books, and what it was made from is not
            taken again by itself.
          </p>
        </div>
      ) : null}
    </>
  );
}

const DAYS = [
  { value: '7', says: '7 days', does: 'then it leads nowhere' },
  { value: '30', says: '30 days', does: 'then it leads nowhere' },
  { value: '', says: 'as long as you leave it', does: 'until you take it back' },
];

const MAY = [
  { value: 'read', says: 'read it', does: 'and nothing else' },
  { value: 'comment', says: 'read it and say something of it', does: 'what they say stands beside its paragraph here' },
];

/** The address at which it is read without signing in. */
function ShareIt({ id }: { id: string }) {
  const [days, setDays] = useState('30');
  const [may, setMay] = useState('read');
  const share = useQuery({
    queryKey: ['article', id, 'share'],
    queryFn: () => call('GET', `/articles/${id}/share`, { answer: Share }),
  });
  const again = () => queryClient.invalidateQueries({ queryKey: ['article', id, 'share'] });
  const put = useMutation({
    mutationFn: () =>
      call('POST', `/articles/${id}/share`, {
        body: { days: days === '' ? null : Number(days), comments: may === 'comment' },
        answer: Share,
      }),
    onSuccess: again,
  });
  const take = useMutation({ mutationFn: () => call('DELETE', `/articles/${id}/share`), onSuccess: again });
  const now = share.data?.share ?? null;
  const error = share.error ?? put.error ?? take.error;
  return (
    <div className="pt-3 text-small">
      {now === null ? (
        <p className="text-ink-3">
          Makes an address at which anybody who has it can read this article, without an account. Nothing else of Grivo
          is to be seen there.
        </p>
      ) : (
        <>
          <p>
            Anybody who has this address can read it{now.comments ? ' and say something of it' : ''}
            {now.endsDesk === null ? '' : ` until ${dayLong(now.endsDesk)}`}; read {plural(now.seen, 'time')} so far.
          </p>
          <code className="fig block py-1 break-all">{now.address}</code>
          <span className="flex gap-4">
            <Button look="word" onClick={() => void copyText(now.address)}>
              Copy it
            </Button>
            <Button look="word" busy={take.isPending ? 'Taking it back' : null} onClick={() => take.mutate()}>
              Take it back
            </Button>
          </span>
        </>
      )}
      <p className="pt-2">
        <Button look="line" busy={put.isPending ? 'Sharing' : null} onClick={() => put.mutate()}>
          {now === null ? 'Share it' : 'Share it anew'}
        </Button>{' '}
        for{' '}
        <ChoiceWord label="How long" value={days} options={DAYS} onChoose={(value) => setDays(value)}>
          {DAYS.find(({ value }) => value === days)!.says}
        </ChoiceWord>
        , for anybody who has the address to{' '}
        <ChoiceWord label="What they may do" value={may} options={MAY} onChoose={setMay} />
        {now === null ? '' : '; the address before leads nowhere then'}
      </p>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </div>
  );
}

/** Telling one of the destinations of it. */
function TellIt({ id }: { id: string }) {
  const all = useQuery(read.destinations());
  const tell = useMutation({
    mutationFn: (destination: string) =>
      call('POST', `/articles/${id}/tell`, { body: { destination }, answer: Told, key: freshKey() }),
  });
  const list = all.data?.destinations ?? [];
  return (
    <div className="pt-3 text-small">
      {all.data && list.length === 0 ? (
        <p className="text-ink-3">
          There is nobody to tell yet: an owner keeps mail addresses, chat rooms and programs in the{' '}
          <Link to="/settings" className="act quiet brackets">
            settings
          </Link>
          .
        </p>
      ) : (
        <p className="text-ink-3">Sends its title, what it is about and its address; a program gets all of it.</p>
      )}
      <ul>
        {list.map((one) => (
          <li key={one.id}>
            <Button
              look="word"
              busy={tell.isPending && tell.variables === one.id ? 'Telling' : null}
              onClick={() => tell.mutate(one.id)}
            >
              Tell ‘{one.name}’
            </Button>
          </li>
        ))}
      </ul>
      {tell.data ? <TestLines lines={[tell.data.line]} /> : null}
      {tell.isError ? <Trouble>{inWords(tell.error)}</Trouble> : null}
    </div>
  );
}
