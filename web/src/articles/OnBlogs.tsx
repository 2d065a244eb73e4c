import { type ArticleWhole, PublicationActed, type PublicationLine } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Confirm, Head, Trouble } from '../design/index.ts';
import { moment } from '../words/time.ts';
import { Elsewhere } from './Elsewhere.tsx';

/** Where an article is, and what can be done about it there: the newest text brought, taken away, put there again. */
export function OnBlogs({ article, now }: { article: ArticleWhole; now: number }) {
  const shown = article.publications.filter(({ state, underWay }) => state !== 'planned' || underWay !== null);
  return (
    <section className="pt-5" aria-label="On blogs">
      <Head title="On blogs" right={shown.length === 0 ? 'on none yet' : ''} />
      <ul>
        {shown.map((line) => (
          <OnBlog key={line.id} article={article} line={line} now={now} />
        ))}
      </ul>
      <Elsewhere article={article} shown={shown} />
    </section>
  );
}

type Act = 'publish' | 'update' | 'withdraw';
const DOING: Record<Act, string> = {
  publish: 'Publishing it',
  update: 'Bringing it there',
  withdraw: 'Taking it away',
};

/** Does something to a post. */
const useAct = (article: ArticleWhole, publication: string) =>
  useMutation({
    mutationFn: (what: Act) =>
      call('POST', `/articles/${article.id}/publications/${publication}`, {
        body: { act: what, revision: article.revision },
        answer: PublicationActed,
        key: freshKey(),
      }),
    onSettled: () => queryClient.invalidateQueries({ queryKey: ['article', article.id] }),
  });

/** What somebody did on the blog. */
function Outside({ seen, to }: { seen: NonNullable<PublicationLine['outside']>; to: string }) {
  return (
    <p>
      Somebody {seen.kind === 'gone' ? 'removed' : 'changed'} it there,{' '}
      {`seen ${moment(new Date(seen.at).getTime(), Date.now())}`}.{' '}
      <Link to={to} className="act brackets">
        Look at it and settle it
      </Link>
    </p>
  );
}

function OnBlog({ article, line, now }: { article: ArticleWhole; line: PublicationLine; now: number }) {
  const [asking, setAsking] = useState(false);
  const act = useAct(article, line.id);
  const busy = (what: Act) => (act.isPending && act.variables === what ? DOING[what] : null);
  const { underWay } = line;
  return (
    <li className="border-b border-rule-soft py-2 text-small">
      <p>
        <strong className="font-semibold">{line.blogName}</strong>: {standsThere(line, now)}
      </p>
      {line.outside ? <Outside seen={line.outside} to={`/articles/${article.id}/outside/${line.id}`} /> : null}
      {underWay ? (
        <p className="text-ink-3">
          {WANTED[underWay]} was asked for and is not known to be done yet.{' '}
          <Button look="word" busy={busy(underWay)} onClick={() => act.mutate(underWay)}>
            Look again
          </Button>
        </p>
      ) : null}
      <p className="flex flex-wrap gap-x-4">
        {line.newest === false && underWay === null && line.can.includes('update') ? (
          <Button look="word" busy={busy('update')} onClick={() => act.mutate('update')}>
            Bring the newest text there
          </Button>
        ) : null}
        {line.state === 'withdrawn' && underWay === null ? (
          <Button look="word" busy={busy('publish')} onClick={() => act.mutate('publish')}>
            Publish it there again
          </Button>
        ) : null}
        {line.newest !== null && line.outside === null && underWay === null ? (
          <Link to={`/articles/${article.id}/outside/${line.id}`} className="act quiet brackets">
            Look what is there
          </Link>
        ) : null}
        {line.can.includes('withdraw') && underWay === null ? (
          <Button look="word" busy={busy('withdraw')} onClick={() => setAsking(true)}>
            Take it from the blog…
          </Button>
        ) : null}
      </p>
      {act.data?.done === false ? (
        <p role="status">Asked for; what came of it is not known yet and is found out by itself.</p>
      ) : null}
      {act.isError ? <Trouble>{inWords(act.error)}</Trouble> : null}
      <Confirm
        open={asking}
        onOpen={setAsking}
        title={`Take it from ${line.blogName}?`}
        says="Readers find nothing at its address any more. The article stays here, and can be published there again at another address."
        does="Take it away"
        onDo={() => act.mutate('withdraw')}
      />
    </li>
  );
}

const WANTED: Record<Act, string> = {
  publish: 'Publishing',
  update: 'The newest text there',
  withdraw: 'Taking it away',
};

function standsThere({ state, as, newest, outDesk, datedDesk }: PublicationLine, now: number): string {
  const older = newest === false ? ', as it was before it was changed here' : '';
  if (datedDesk !== null) return `kept there until ${moment(datedDesk, now)}, when readers see it${older}`;
  switch (state) {
    case 'live':
      return `${as === 'private' ? 'private' : 'out'}${outDesk === null ? '' : ` since ${moment(outDesk, now)}`}${older}`;
    case 'draft':
      return as === 'review'
        ? `waits for the blog’s own review${older}`
        : `a draft${older === '' ? ', that no reader sees' : older}`;
    case 'withdrawn':
      return 'taken back';
    default:
      return 'on its way there';
  }
}
