import { type ForwardLine, MendedLinks } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { Empty, Head, Loading, Mark, Trouble } from '../../design/index.ts';
import { atColon } from '../../words/figures.ts';
import { MendedSaid } from './DeadLinks.tsx';
import { linksChanged, linksRead } from './useLinks.ts';

type From = ForwardLine['from'][number];

/** What went out last, and older articles that say what it is about and do not lead to it yet. */
export function Forward({ blog }: { blog: string }) {
  const forward = useQuery(linksRead.forward(blog));
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const link = useMutation({
    mutationFn: ({ from: { article, block, anchor }, to }: { from: From; to: string }) =>
      call('POST', `/blogs/${blog}/links/forward`, { body: { article, block, anchor, to }, answer: MendedLinks }),
    onSettled: () => linksChanged(blog),
  });
  const keyOf = (to: string, { article }: From) => `${to} ${article}`;
  const lists = (forward.data?.to ?? [])
    .map((one) => ({ ...one, from: one.from.filter((from) => !dropped.has(keyOf(one.article, from))) }))
    .filter(({ from }) => from.length > 0);
  return (
    <section className="pt-5">
      {forward.isPending ? <Loading rows={3} /> : null}
      {forward.isError ? <Trouble>{inWords(forward.error)}</Trouble> : null}
      {forward.data && lists.length === 0 ? (
        <>
          <Head title="Could link forward" />
          <Empty>No older article says what the newest ones are about without leading there.</Empty>
        </>
      ) : null}
      {lists.map(({ article: to, title, from }) => (
        <div key={to} className="pb-3">
          <Head
            title="Could link forward to"
            right={
              <Link to={`/articles/${to}`} className="work brackets">
                {atColon(title)}
              </Link>
            }
          />
          <ul>
            {from.map((one) => (
              <li key={one.article} className="border-b border-rule-soft py-1.5">
                <div className="flex items-baseline gap-2">
                  <Mark state="wait" />
                  <Link to={`/articles/${one.article}`} className="work brackets min-w-0 truncate">
                    {one.title}
                  </Link>
                  <span className="ml-auto flex gap-3 text-small">
                    <button
                      type="button"
                      className="act brackets"
                      disabled={link.isPending}
                      aria-label={`Link: ${one.title} to ${title}`}
                      onClick={() => link.mutate({ from: one, to })}
                    >
                      Link
                    </button>
                    <button
                      type="button"
                      className="act quiet brackets"
                      aria-label={`Not this: ${one.title}`}
                      onClick={() => setDropped(new Set([...dropped, keyOf(to, one)]))}
                    >
                      Not this
                    </button>
                  </span>
                </div>
                <p className="pl-6 font-read text-[15px] italic">
                  “<Said {...one} />”
                </p>
              </li>
            ))}
          </ul>
        </div>
      ))}
      {link.isError ? <Trouble>{inWords(link.error)}</Trouble> : null}
      {link.data ? <MendedSaid mended={link.data} /> : null}
    </section>
  );
}

function Said({ sentence, anchor }: From) {
  const at = sentence.indexOf(anchor);
  if (at < 0) return sentence;
  return (
    <>
      {sentence.slice(0, at)}
      <u className="decoration-2 underline-offset-4">{anchor}</u>
      {sentence.slice(at + anchor.length)}
    </>
  );
}
