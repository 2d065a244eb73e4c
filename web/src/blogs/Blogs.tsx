import type { Blog, BlogSlots } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Empty, Loading, Trouble } from '../design/index.ts';
import { useArchived } from '../keeping/useArchived.tsx';
import { Carried } from '../labels/Carried.tsx';
import { NoneCarries } from '../labels/NoneCarries.tsx';
import { count, plural } from '../words/figures.ts';
import { dayLong } from '../words/time.ts';
import { ConnectBlog } from './connect/ConnectBlog.tsx';
import { Connection } from './TestLines.tsx';

/** All blogs: where they are, their rule, how far they are covered. */
export default function Blogs() {
  const blogs = useQuery(read.blogs());
  const slots = useQuery(read.slots(null, 7)).data;
  const [search, setSearch] = useSearchParams();
  const go = useNavigate();
  const making = search.has('new');
  const { rows, words: archived } = useArchived(blogs.data?.blogs);
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Blogs</h1>
        <span className="text-ink-3">{rows ? plural(rows.length, 'blog') : ''}</span>
        {archived}
        <Button className="ml-auto" onClick={() => setSearch(making ? {} : { new: '' })}>
          {making ? 'Not now' : 'Connect a blog'}
        </Button>
      </div>
      {making ? (
        <div className="pb-5">
          <ConnectBlog autoFocus onDone={(id) => void go(`/blogs/${id}`)} />
        </div>
      ) : null}
      <div className="-mx-8 border-t border-ink px-8">
        {blogs.isPending ? <Loading /> : null}
        {blogs.isError ? <Trouble>{inWords(blogs.error)}</Trouble> : null}
        {rows?.length === 0 && !making ? (
          <NoneCarries what="blog">
            <Empty
              next={
                <Button look="word" onClick={() => setSearch({ new: '' })}>
                  Connect the first
                </Button>
              }
            >
              No blog yet.
            </Empty>
          </NoneCarries>
        ) : null}
        <ul>
          {rows?.map((row) => (
            <Line
              key={row.id}
              blog={row}
              lane={slots?.blogs.find(({ blog }) => blog === row.id)}
              now={slots?.now ?? Date.now()}
            />
          ))}
        </ul>
      </div>
    </>
  );
}

/** Days before it runs dry from which that is said loudly. */
const SOON = 4;

function Line({ blog, lane, now }: { blog: Blog; lane: BlogSlots | undefined; now: number }) {
  const dry = lane?.dryFrom ?? null;
  const soon = dry !== null && dry - now < SOON * 86_400_000;
  const day = dry === null ? '' : dayLong(dry).replace(',', '');
  const cover = dry === null ? 'covered for eight weeks' : `${soon ? 'dry from' : 'covered until'} ${day}`;
  return (
    <li className="row grid h-14 grid-cols-[260px_1fr_250px_70px_170px] gap-x-4 items-center">
      <span className="min-w-0">
        <Link to={`/blogs/${blog.id}`} className="brackets block w-fit text-proc font-medium">
          {blog.name}
        </Link>
        <span className="block truncate text-small text-ink-3">
          <Carried labels={blog.labels} before=" · " />
          {blog.address}
        </span>
      </span>
      <span className="truncate text-ink-2">{blog.cadenceSentence}</span>
      <span className="text-small">
        <Connection blog={blog} now={now} />
      </span>
      <span className="text-small">{count(blog.out)} live</span>
      <span className={`text-right ${soon ? 'font-bold' : 'text-ink-2'}`}>{lane ? cover : ''}</span>
    </li>
  );
}
