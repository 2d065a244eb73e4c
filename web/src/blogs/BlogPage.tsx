import { type Blog, type Slot, TestLog } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { CadenceSentence } from '../cadence/CadenceSentence.tsx';
import { Button, Empty, Head, Loading, Mark, saysOf, stateOf, Trouble } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { useNow } from '../shell/useNow.ts';
import { count, counted, plural } from '../words/figures.ts';
import { inARow } from '../words/list.ts';
import { slotKey } from '../words/slots.ts';
import { moment } from '../words/time.ts';
import { BlogTabs } from './BlogTabs.tsx';
import { Categories, Lacking } from './Categories.tsx';
import { ChangedHere } from './ChangedHere.tsx';
import { ChangedThere } from './ChangedThere.tsx';
import { HouseStyleOf } from './HouseStyleOf.tsx';
import { type Feeding, HowTheyArrive } from './HowTheyArrive.tsx';
import { PicturesThere } from './PicturesThere.tsx';
import { PingsOf } from './Pings.tsx';
import { Connection, TestLines } from './TestLines.tsx';
import { WhereItIs } from './WhereItIs.tsx';

/** One blog: where it is, its test in words, how articles arrive, its cadence and what comes. */
export default function BlogPage() {
  const { id = '' } = useParams();
  const blogs = useQuery(read.blogs());
  const slots = useQuery(read.slots(null, 14));
  const pipelines = useQuery(read.pipelines()).data?.pipelines ?? [];
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const test = useMutation({
    mutationFn: () => call('POST', `/blogs/${id}/test`, { answer: TestLog }),
    onSettled: () => void queryClient.invalidateQueries({ queryKey: ['blogs'] }),
  });
  const blog = blogs.data?.blogs.find((one) => one.id === id);
  if (blogs.isPending) return <Loading />;
  if (!blog) return <Trouble>{blogs.isError ? inWords(blogs.error) : 'There is no such blog.'}</Trouble>;
  const lane = slots.data?.blogs.find((one) => one.blog === id);
  const coming = lane?.slots.filter((slot) => slot.at >= now) ?? [];
  const feeding = pipelines.flatMap(({ id, name, publishes }) => {
    const step = publishes.find((one) => one.blog === blog.id);
    return step ? [{ id, name, says: step.says }] : [];
  });
  return (
    <>
      <div className="pt-2 pb-2">
        <div className="flex items-center gap-6">
          <h1 className="truncate text-title font-semibold tracking-[-0.018em]">{blog.name}</h1>
          <BlogTabs id={blog.id} at="blog" />
          <span className="ml-auto">
            <Button look="line" busy={test.isPending ? 'Testing with a draft' : null} onClick={() => test.mutate()}>
              {blog.test ? 'Test it again' : 'Test it'}
            </Button>
          </span>
        </div>
        <Standing blog={blog} coming={coming} feeding={feeding} now={now} />
      </div>
      <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,456fr)_minmax(0,424fr)_minmax(0,400fr)] content-start border-t border-ink max-[1100px]:grid-cols-1">
        <section className="px-8">
          <WhereItIs blog={blog} />
          <div className="pt-3" />
          <Head title="Last test" right={blog.test ? moment(blog.test.atDesk, now) : 'none yet'} />
          {test.isError ? <Trouble>{inWords(test.error)}</Trouble> : null}
          {blog.test ? (
            <TestLines lines={blog.test.lines} />
          ) : (
            <Empty>A test asks what the blog can do, puts a draft up, reads it back and takes it away.</Empty>
          )}
          <Lacking blog={blog} />
        </section>
        <section className="border-l border-rule px-6 max-[1100px]:border-l-0 max-[1100px]:px-8 max-[1100px]:pt-4">
          <Head title="Cadence" right={lane?.dryFrom ? `dry from ${moment(lane.dryFrom, now, lane.zone)}` : ''} />
          <p className="pt-2 leading-7">
            <CadenceSentence blog={blog} />
          </p>
          <HowTheyArrive blog={blog.id} feeding={feeding} />
          <HouseStyleOf blog={blog} />
          <ChangedHere blog={blog} />
          <ChangedThere blog={blog} now={now} />
          <PicturesThere blog={blog} />
          <Categories blog={blog} />
          <div className="pt-4">
            <Head title="Link index" right={`${counted(blog.pages)} pages`} />
            <p className="pt-2 text-small text-ink-3">
              Read from its sitemap once a day, and every article that goes out is added. Articles link to these pages;{' '}
              <Link to={`/blogs/${blog.id}/links`} className="act quiet brackets">
                see its links
              </Link>
              .
            </p>
          </div>
        </section>
        <section className="border-l border-rule px-6 pr-8 max-[1100px]:border-l-0 max-[1100px]:px-8 max-[1100px]:pt-4">
          <NextSlots coming={coming} zone={lane?.zone} now={now} />
          <PingsOf blog={blog} />
        </section>
      </div>
    </>
  );
}

/** Whether it answers, what of ours is on it, what is empty and who fills it. */
function Standing({
  blog,
  coming,
  feeding,
  now,
}: {
  blog: Blog;
  coming: readonly Slot[];
  feeding: readonly Feeding[];
  now: number;
}) {
  return (
    <div className="flex flex-wrap gap-x-5 text-small leading-5 text-ink-2">
      <Connection blog={blog} now={now} />
      <span className="flex items-center gap-2">
        <Mark state="done" /> {count(blog.out)} of our articles live
      </span>
      <span className="flex items-center gap-2">
        <Mark state="plan" /> {plural(coming.filter((slot) => slot.standing === 'planned').length, 'slot')} empty in two
        weeks
      </span>
      <span className="ml-auto text-ink-3">
        {feeding.length === 0 ? 'No pipeline publishes here.' : `Fed by ${inARow(feeding.map(({ name }) => name))}`}
      </span>
      <KeepMenu of="blogs" it={blog} />
    </div>
  );
}

function NextSlots({ coming, zone, now }: { coming: readonly Slot[]; zone: string | undefined; now: number }) {
  return (
    <>
      <Head title="Next slots" right="two weeks" />
      <ul>
        {coming.slice(0, 14).map((slot) => (
          <li
            key={slotKey(slot)}
            className="grid h-6 grid-cols-[136px_20px_1fr] items-center border-b border-rule-soft"
          >
            <span className="fig text-ink-2">{moment(slot.at, now, zone)}</span>
            <Mark state={stateOf(slot.standing)} label={saysOf(slot.standing)} />
            {slot.article ? (
              <Link to={`/articles/${slot.article}`} className="work brackets truncate">
                {slot.title}
              </Link>
            ) : (
              <span className="truncate text-ink-3">{slot.title ?? 'empty'}</span>
            )}
          </li>
        ))}
      </ul>
      {coming.length === 0 ? <Empty>The cadence makes no slot in two weeks.</Empty> : null}
      <p className="pt-3 text-small">
        <Link to="/cadence" className="act quiet brackets">
          See it on Cadence
        </Link>
      </p>
    </>
  );
}
