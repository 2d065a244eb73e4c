import type { ArticleWhole, Evidence } from '@grivo/contract';
import { articleNodes, type Block, blockText, isStatement, tagsOf } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Head, Key, Loading, Mark, Ruler, saysOf, stateOf, Trouble } from '../design/index.ts';
import { Remove } from '../keeping/Remove.tsx';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { count, money, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { Drawn } from './Drawn.tsx';
import { fileName, SaveCopy } from './SaveCopy.tsx';

const SHOWS = ['page', 'Markdown', 'HTML'] as const;

/** An article as the page it will be; beside every paragraph what it rests on, and its measures. */
export default function ArticlePage() {
  const { id = '' } = useParams();
  const article = useQuery(read.article(id));
  const beside = useQuery(read.neighbours(id)).data;
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [show, setShow] = useState<(typeof SHOWS)[number]>('page');
  const [at, setAt] = useState<string | null>(null);
  const [removing, setRemoving] = useState(false);
  const go = useNavigate();
  const blocks = article.data?.document.body ?? [];
  const resting = blocks.filter((block) => block.type === 'paragraph' || block.type === 'list');
  const step = (by: number) => {
    const i = resting.findIndex((block) => block.id === at);
    const next = resting[Math.max(0, Math.min(resting.length - 1, i + by))];
    setAt(next?.id ?? null);
    document.getElementById(`block-${next?.id}`)?.scrollIntoView({ block: 'center' });
  };
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
  const { title, standing, outDesk, dueDesk, address, micros, measures, figuresNotFound } = article.data;
  const rested = resting.filter((block) => (block.evidence?.length ?? 0) > 0).length;
  return (
    <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,972fr)_308px]">
      <div className="min-w-0">
        <div className="flex h-[33px] items-center gap-3 pr-6 pl-8 text-small text-ink-3">
          <span className="flex items-center gap-2 text-base text-ink">
            <Mark state={stateOf(standing)} /> {saysOf(standing)}
          </span>
          <span>
            {outDesk !== null
              ? `since ${moment(outDesk, now)}`
              : dueDesk !== null
                ? `goes out ${moment(dueDesk, now)}`
                : 'no slot'}
            , {money(micros)}
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
                onClick={() => setShow(one)}
              >
                {one === 'page' ? 'Page' : one}
              </button>
            ))}
            <SaveCopy id={id} title={title} />
          </span>
        </div>
        {show === 'page' ? (
          <Page article={article.data} at={at} onAt={setAt} />
        ) : (
          <Source id={id} as={show === 'Markdown' ? 'markdown' : 'html'} title={title} />
        )}
      </div>
      <aside className="border-l border-rule px-6" aria-label="Measures">
        <div className="sticky top-[100px]">
          <Head title="Measures" right={`${rested} of ${resting.length} on evidence`} />
          {measures.map((measure) => (
            <MeasureLine key={measure.name} {...measure} />
          ))}
          {figuresNotFound.length > 0 ? (
            <p className="pt-2 text-small text-red">
              Not found in any source:{' '}
              {figuresNotFound.map((figure) => (
                <s key={figure} className="fig mr-2 border-b-2 border-red no-underline">
                  {figure}
                </s>
              ))}
            </p>
          ) : null}
          <p className="flex flex-wrap gap-x-4 gap-y-1 pt-4 text-small text-ink-3">
            <span>
              <Key>J</Key> <Key>K</Key> paragraph
            </span>
            <span>
              <Key>N</Key> <Key>P</Key> article
            </span>
          </p>
          <p className="pt-3 text-small text-ink-3">
            <Link to="/articles" className="act quiet brackets">
              All articles
            </Link>
            {removing ? null : (
              <button type="button" className="act quiet brackets ml-4" onClick={() => setRemoving(true)}>
                Remove it…
              </button>
            )}
          </p>
          {removing ? (
            <div className="pt-3">
              <Remove
                path={`/articles/${id}`}
                onLeave={() => setRemoving(false)}
                onGone={() => {
                  void queryClient.invalidateQueries();
                  void go('/articles');
                }}
              />
              <p className="pt-2 text-small text-ink-3">
                It goes with the brief it was made from. What it cost stays in the books, and what it was made from is
                not taken again by itself.
              </p>
            </div>
          ) : null}
        </div>
      </aside>
    </div>
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

/** Files and articles at their addresses in the application. */
const HERE = { file: (digest: string) => `/api/files/${digest}`, article: (id: string) => `/articles/${id}` };

/** The page, each block with its evidence on its own row. */
function Page({ article, at, onAt }: { article: ArticleWhole; at: string | null; onAt: (id: string | null) => void }) {
  const passages = useMemo(() => new Map(article.passages.map((passage) => [passage.id, passage])), [article.passages]);
  const { document: doc } = article;
  const tags = tagsOf(doc);
  const lead = doc.body.find((block) => block.type === 'figure' && block.lead);
  const nodes = useMemo(() => articleNodes(doc, HERE), [doc]);
  return (
    <div className="page pb-12">
      <Row
        margin={
          lead ? (
            <Note title="Title and lead picture">
              {passages.size === 0 ? 'nothing in this article rests on a source; ' : ''}
              {lead.type === 'figure' ? `its alternative text has ${lead.alternative.length} characters` : ''}
            </Note>
          ) : passages.size === 0 ? (
            <Note title="Evidence">nothing in this article rests on a source</Note>
          ) : null
        }
      >
        <div className="flex flex-wrap gap-x-8 pt-5">
          <div className="min-w-[300px] flex-1">
            <h1>{doc.title || <span className="text-ink-3">No title yet</span>}</h1>
            <p className="!text-[13px] text-ink-2 italic">{doc.description}</p>
            {tags.length > 0 ? <p className="!font-ui !text-[12px] text-ink-3">Tags: {tags.join(', ')}</p> : null}
          </div>
          {lead?.type === 'figure' ? (
            <figure>
              <img src={HERE.file(lead.file)} alt={lead.alternative} className="h-[120px] w-[250px] object-cover" />
              {lead.caption || lead.credit ? (
                <figcaption>{[lead.caption, lead.credit].filter(Boolean).join(' · ')}</figcaption>
              ) : null}
            </figure>
          ) : null}
        </div>
      </Row>
      {nodes.map(({ block, node }) =>
        block === lead ? null : (
          <Row
            key={block.id}
            id={block.id}
            picked={at === block.id}
            onPick={
              block.evidence && block.evidence.length > 0 ? () => onAt(at === block.id ? null : block.id) : undefined
            }
            margin={
              <EvidenceNotes
                block={block}
                passages={passages}
                open={at === block.id}
                notFound={article.figuresNotFound}
              />
            }
          >
            <Drawn node={node} ringed={article.figuresNotFound} />
          </Row>
        ),
      )}
    </div>
  );
}

function Row({
  id,
  picked = false,
  onPick,
  margin,
  children,
}: {
  id?: string;
  picked?: boolean;
  onPick?: (() => void) | undefined;
  margin: ReactNode;
  children: ReactNode;
}) {
  return (
    <div id={id ? `block-${id}` : undefined} className="grid grid-cols-[252px_32px_minmax(0,1fr)_24px]">
      <div className="pt-3 pl-8 text-right">{margin}</div>
      <div />
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: J and K walk over the same paragraphs */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the page is text; picking a paragraph only shows more of its evidence */}
      <div
        className={`relative border-x border-rule bg-sheet px-8 pb-1 ${onPick ? 'cursor-pointer' : ''}`}
        onClick={onPick}
      >
        {picked ? <span aria-hidden className="absolute top-2 bottom-1 left-3 w-1 bg-marker" /> : null}
        {children}
      </div>
    </div>
  );
}

function Note({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="border-r border-rule-strong pr-3">
      <p className="!mt-0 !font-ui !text-[12px] !leading-4 font-medium">{title}</p>
      <p className="!mt-0 !text-[12px] !leading-4 text-ink-2 italic">{children}</p>
    </div>
  );
}

/** Which passages a block rests on; open, with their words. */
function EvidenceNotes({
  block,
  passages,
  open,
  notFound,
}: {
  block: Block;
  passages: ReadonlyMap<string, Evidence>;
  open: boolean;
  notFound: readonly string[];
}) {
  const own = (block.evidence ?? []).flatMap(({ passage }) => passages.get(passage) ?? []);
  const text = blockText(block);
  const missing = notFound.filter((figure) => text.includes(figure));
  // What was written has evidence or lacks it; what somebody laid out is their own.
  const bare =
    (passages.size > 0 || block.evidence !== undefined) &&
    own.length === 0 &&
    isStatement(block) &&
    block.type !== 'quote' &&
    block.type !== 'key points';
  if (own.length === 0 && missing.length === 0 && !bare) return null;
  const shown = open ? own : own.slice(0, 1);
  return (
    <div
      className={`border-r pr-3 ${missing.length > 0 ? 'border-r-2 border-red' : open ? 'border-ink' : 'border-rule-strong'}`}
    >
      {missing.length > 0 ? (
        <p className="!mt-0 !font-ui !text-[12px] !leading-4 text-red">
          {missing.join(', ')}: not found in any source read for this article
        </p>
      ) : null}
      {bare ? <p className="!mt-0 !font-ui !text-[12px] !leading-4 text-ink-3">rests on nothing</p> : null}
      {shown.map((passage) => (
        <p key={passage.id} className="!mt-0 pb-1 !text-[12px] !leading-4">
          <Where passage={passage} />
          <span className="text-ink-2 italic">“{open ? passage.text : shorten(passage.text)}”</span>
        </p>
      ))}
      {!open && own.length > 1 ? (
        <p className="!mt-0 !font-ui !text-[12px] !leading-4 text-ink-3">
          and {plural(own.length - 1, 'passage')} more
        </p>
      ) : null}
    </div>
  );
}

/** What a passage is from and where in it; leads there where that is on the web. */
function Where({ passage: { title, place, address } }: { passage: Evidence }) {
  const says = (
    <>
      <span className="block truncate font-ui font-medium">{title}</span>
      <span className="block truncate font-ui text-ink-3">{place}</span>
    </>
  );
  if (address === '') return says;
  return (
    <a href={address} target="_blank" rel="noreferrer" className="brackets block hover:underline">
      {says}
    </a>
  );
}

function shorten(text: string): string {
  if (text.length <= 90) return text;
  return `${text.slice(0, text.lastIndexOf(' ', 86))} …`;
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
