import { type Blog, type BlogLinks, LookedAgain } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { Button, Loading, Mark, Trouble } from '../../design/index.ts';
import { useNow } from '../../shell/useNow.ts';
import { count, plural } from '../../words/figures.ts';
import { moment } from '../../words/time.ts';
import { BlogTabs } from '../BlogTabs.tsx';
import { Counted } from './Counted.tsx';
import { DeadLinks } from './DeadLinks.tsx';
import { Forward } from './Forward.tsx';
import { KeptAddresses } from './KeptAddresses.tsx';
import { PageList } from './PageList.tsx';
import { RuleList } from './RuleList.tsx';
import { Tried } from './Tried.tsx';
import { linksChanged, linksRead } from './useLinks.ts';

/** The links of a blog: which words are linked by rule, what may be linked to, what is dead, what could lead forward. */
export default function LinksPage() {
  const { id = '' } = useParams();
  const blogs = useQuery(read.blogs());
  const links = useQuery(linksRead.whole(id));
  const slots = useQuery(read.slots(null, 14));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const blog = blogs.data?.blogs.find((one) => one.id === id);
  if (blogs.isPending) return <Loading />;
  if (!blog) return <Trouble>{blogs.isError ? inWords(blogs.error) : 'There is no such blog.'}</Trouble>;
  const kept = (kind: 'own' | 'outside') => (links.data?.addresses ?? []).filter((one) => one.kind === kind);
  return (
    <>
      <LinksHead blog={blog} links={links.data} now={now} />
      {links.isError ? <Trouble>{inWords(links.error)}</Trouble> : null}
      <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,752fr)_minmax(0,528fr)] content-start border-t border-ink max-[1100px]:grid-cols-1">
        <section className="px-8 pb-8">
          <RuleList blog={id} />
          <Tried blog={id} name={blog.name} />
          <div className="grid grid-cols-2 gap-8">
            <KeptAddresses blog={id} kind="own" addresses={kept('own')} />
            <KeptAddresses blog={id} kind="outside" addresses={kept('outside')} />
          </div>
          <Counted blog={id} name={blog.name} />
        </section>
        <section className="border-l border-rule bg-sheet px-6 pr-8 pb-8 max-[1100px]:border-l-0 max-[1100px]:px-8">
          {links.isPending ? <Loading rows={5} /> : <DeadLinks blog={id} dead={links.data?.dead ?? []} now={now} />}
          <Forward blog={id} />
          <PageList blog={id} />
        </section>
      </div>
    </>
  );
}

function LinksHead({ blog, links, now }: { blog: Blog; links: BlogLinks | undefined; now: number }) {
  const look = useMutation({
    mutationFn: () => call('POST', `/blogs/${blog.id}/links/look`, { answer: LookedAgain }),
    onSuccess: () => linksChanged(blog.id),
  });
  return (
    <div className="pt-2 pb-2">
      <div className="flex items-center gap-6">
        <h1 className="truncate text-title font-semibold tracking-[-0.018em]">{blog.name}</h1>
        <BlogTabs id={blog.id} at="links" />
        <span className="ml-auto">
          <Button look="line" busy={look.isPending ? 'Asking' : null} onClick={() => look.mutate()}>
            Look at all links again
          </Button>
        </span>
      </div>
      {look.isError ? <Trouble>{inWords(look.error)}</Trouble> : null}
      <LinksStand stand={links?.stand} now={now} />
    </div>
  );
}

function LinksStand({ stand, now }: { stand: BlogLinks['stand'] | undefined; now: number }) {
  if (!stand) return <p className="text-small leading-5 text-ink-3">Reading</p>;
  if (stand.links === 0)
    return (
      <p className="text-small leading-5 text-ink-3">No live article here has a link yet, or they are being read.</p>
    );
  const { answers, dead, moved, unsure, waiting } = stand;
  return (
    <div className="flex flex-wrap gap-x-5 text-small leading-5 text-ink-2">
      <span className="flex items-center gap-2">
        <Mark state="done" /> {plural(answers, 'address', 'addresses')} {answers === 1 ? 'answers' : 'answer'}
        {stand.lookedAt === null ? '' : `, looked at ${moment(new Date(stand.lookedAt).getTime(), now)}`}
      </span>
      {dead > 0 ? (
        <span className="flex items-center gap-2">
          <Mark state="stop" /> {count(dead)} {dead === 1 ? 'is' : 'are'} dead
        </span>
      ) : null}
      {moved > 0 ? (
        <span className="flex items-center gap-2">
          <Mark state="wait" /> {count(moved)} moved for good
        </span>
      ) : null}
      {unsure > 0 ? <span>{count(unsure)} could not be looked at</span> : null}
      {waiting > 0 ? <span>{count(waiting)} waiting to be looked at, one a second for each site</span> : null}
      <span className="ml-auto text-ink-3">
        {plural(stand.links, 'link')} in {plural(stand.articles, 'live article')}
      </span>
    </div>
  );
}
