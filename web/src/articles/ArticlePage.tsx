import type { ArticleWhole } from '@grivo/contract';
import { type Block, doubtWords } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Head, Key, Loading, Mark, Ruler, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { count, money } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { ArticleActs } from './ArticleActs.tsx';
import { Page } from './Page.tsx';
import { fileName, SaveCopy } from './SaveCopy.tsx';

const SHOWS = ['page', 'Markdown', 'HTML'] as const;
type Show = (typeof SHOWS)[number];

/** The paragraph that is looked at, walked through by keys. */
function useParagraphs(blocks: readonly Block[]) {
  const [at, setAt] = useState<string | null>(null);
  const resting = blocks.filter((block) => block.type === 'paragraph' || block.type === 'list');
  const step = (by: number) => {
    const i = resting.findIndex((block) => block.id === at);
    const next = resting[Math.max(0, Math.min(resting.length - 1, i + by))];
    setAt(next?.id ?? null);
    document.getElementById(`block-${next?.id}`)?.scrollIntoView({ block: 'center' });
  };
  return { at, setAt, resting, step };
}

/** An article as the page it will be; beside every paragraph what it rests on, and its measures. */
export default function ArticlePage() {
  const { id = '' } = useParams();
  const article = useQuery(read.article(id));
  const { label } = useLabel();
  const beside = useQuery(read.neighbours(id, label)).data;
  const [show, setShow] = useState<Show>('page');
  const go = useNavigate();
  const { at, setAt, resting, step } = useParagraphs(article.data?.document.body ?? []);
  const neighbour = (by: number) => {
    const next = by > 0 ? beside?.older : beside?.newer;
    if (next) void go(`/articles/${next}`);
  };
  useViewKeys({ j: () => step(1), k: () => step(-1), n: () => neighbour(1), p: () => neighbour(-1) });
  if (article.isPending)
    return (
      <div className="pt-8">
        <Loading rows={12} />
      </div>
    );
  if (!article.data) return <Trouble>{inWords(article.error)}</Trouble>;
  return (
    <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,972fr)_308px]">
      <div className="min-w-0">
        <ArticleHead article={article.data} id={id} show={show} onShow={setShow} />
        {show === 'page' ? (
          <Page article={article.data} at={at} onAt={setAt} />
        ) : (
          <Source id={id} as={show === 'Markdown' ? 'markdown' : 'html'} title={article.data.title} />
        )}
      </div>
      <aside className="border-l border-rule px-6" aria-label="Measures">
        <div className="sticky top-[100px]">
          <Measures article={article.data} resting={resting} />
          <p className="flex flex-wrap gap-x-4 gap-y-1 pt-4 text-small text-ink-3">
            <span>
              <Key>J</Key> <Key>K</Key> paragraph
            </span>
            <span>
              <Key>N</Key> <Key>P</Key> article
            </span>
          </p>
          <ArticleActs id={id} />
        </div>
      </aside>
    </div>
  );
}

/** How it stands, since when, what it cost, where it is, and as what it is shown. */
function ArticleHead({
  article: { title, standing, outDesk, dueDesk, address, micros },
  id,
  show,
  onShow,
}: {
  article: ArticleWhole;
  id: string;
  show: Show;
  onShow: (show: Show) => void;
}) {
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const when =
    outDesk !== null
      ? `since ${moment(outDesk, now)}`
      : dueDesk !== null
        ? `goes out ${moment(dueDesk, now)}`
        : 'no slot';
  return (
    <div className="flex h-[33px] items-center gap-3 pr-6 pl-8 text-small text-ink-3">
      <span className="flex items-center gap-2 text-base text-ink">
        <Mark state={stateOf(standing)} /> {saysOf(standing)}
      </span>
      <span>
        {when}, {money(micros)}
      </span>
      {address ? (
        <a href={address} target="_blank" rel="noreferrer" className="act quiet brackets">
          {standing === 'draft' ? 'Open the draft, for the owner of the blog' : 'Open it on the blog'}
        </a>
      ) : null}
      <span className="ml-auto flex items-baseline gap-4">
        {SHOWS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={show === one}
            className={`brackets ${show === one ? 'hl hl-full font-semibold text-ink' : ''}`}
            onClick={() => onShow(one)}
          >
            {one === 'page' ? 'Page' : one}
          </button>
        ))}
        <SaveCopy id={id} title={title} />
      </span>
    </div>
  );
}

function Measures({ article: { measures, doubts }, resting }: { article: ArticleWhole; resting: readonly Block[] }) {
  const rested = resting.filter((block) => (block.evidence?.length ?? 0) > 0).length;
  return (
    <>
      <Head title="Measures" right={`${rested} of ${resting.length} on evidence`} />
      {measures.map((measure) => (
        <MeasureLine key={measure.name} {...measure} />
      ))}
      {doubts.length > 0 ? (
        <>
          <p className="pt-5 font-semibold">Not as in the sources</p>
          <ul className="pt-1 text-small text-red">
            {doubts.map((doubt) => (
              <li key={`${doubt.block} ${doubt.words}`}>
                <a href={`#block-${doubt.block}`} className="brackets block">
                  {doubtWords(doubt)}
                </a>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  );
}

function MeasureLine({ name, value, least, most, unit, says }: ArticleWhole['measures'][number]) {
  const wrong = (least !== null && value < least) || (most !== null && value > most);
  const top = Math.max(value, most ?? 0, least ?? 0, 1) * 1.25;
  return (
    <div className="pt-3">
      <p className={`flex items-baseline justify-between ${wrong ? 'text-red' : ''}`}>
        {name}
        <span className="fig">
          {value.toLocaleString('en-GB')} {unit}
        </span>
      </p>
      {least !== null || most !== null ? (
        <Ruler
          label={`${name}: ${value} ${unit}`}
          value={value}
          from={0}
          to={unit === '%' ? 100 : top}
          least={least}
          most={most}
        />
      ) : null}
      <p className="text-small text-ink-3">{says}</p>
    </div>
  );
}

function Source({ id, as, title }: { id: string; as: 'markdown' | 'html'; title: string }) {
  const text = useQuery({
    queryKey: ['article', id, as],
    queryFn: async () => {
      const response = await fetch(`/api/articles/${id}/text?as=${as}`);
      if (!response.ok) await call('GET', `/articles/${id}/text?as=${as}`);
      return response.text();
    },
  });
  if (text.isPending) return <Loading />;
  if (text.isError) return <Trouble>{inWords(text.error)}</Trouble>;
  return (
    <div className="px-8 pb-8">
      <div className="flex items-baseline gap-4 border-t border-ink py-2 text-small">
        <span className="text-ink-3">{count(text.data.length)} characters</span>
        <Button look="word" onClick={() => void navigator.clipboard.writeText(text.data)}>
          Copy it all
        </Button>
        <a
          className="act brackets"
          download={`${fileName(title)}.${as === 'html' ? 'html' : 'md'}`}
          href={URL.createObjectURL(new Blob([text.data], { type: as === 'html' ? 'text/html' : 'text/markdown' }))}
        >
          Save as a file
        </a>
      </div>
      <pre className="overflow-auto border border-rule bg-sheet p-4 font-mono text-[12px] leading-[18px] whitespace-pre-wrap">
        {text.data}
      </pre>
    </div>
  );
}
