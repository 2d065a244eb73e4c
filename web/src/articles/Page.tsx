import type { ArticleWhole } from '@grivo/contract';
import {
  articleNodes,
  type Block,
  type Doubt,
  directionOf,
  inlineText,
  isOfSentence,
  isStatement,
  tagsOf,
} from '@grivo/core';
import { type ReactNode, useMemo } from 'react';
import { useFaces } from '../design/index.ts';
import { ChartPicture } from '../parts/ChartPicture.tsx';
import { BlockComments, useComments } from '../proof/Comments.tsx';
import { Drawn } from '../proof/Drawn.tsx';
import { EvidenceNotes } from '../proof/EvidenceNotes.tsx';

/** Files and articles at their addresses in the application. */
const HERE = { file: (digest: string) => `/api/files/${digest}`, article: (id: string) => `/articles/${id}` };

/** Some words of the text, not a whole sentence: they are ringed where they stand. */
const isInText = (doubt: Doubt) => !isOfSentence(doubt);

type Figure = Extract<Block, { type: 'figure' }>;

/** The page, each block with its evidence on its own row. */
export function Page({
  article,
  at,
  onAt,
}: {
  article: ArticleWhole;
  at: string | null;
  onAt: (id: string | null) => void;
}) {
  const passages = useMemo(() => new Map(article.passages.map((passage) => [passage.id, passage])), [article.passages]);
  const { document: doc } = article;
  const doubtsAt = (id: string) => article.doubts.filter(({ block }) => block === id);
  const direction = directionOf(doc.language);
  useFaces(doc.language);
  const lead = doc.body.find((block): block is Figure => block.type === 'figure' && block.lead === true);
  const comments = useComments(article.id);
  const nodes = useMemo(() => articleNodes(doc, HERE, true), [doc]);
  return (
    <div className="page pb-12" lang={doc.language}>
      <Row direction={direction} margin={<TitleNote lead={lead} rests={passages.size > 0} />}>
        <Title doc={doc} lead={lead} />
      </Row>
      {nodes.map(({ block, node }) =>
        block === lead ? null : (
          <Row
            key={block.id}
            id={block.id}
            direction={direction}
            picked={at === block.id}
            onPick={
              isStatement(block) || comments.has(block.id) ? () => onAt(at === block.id ? null : block.id) : undefined
            }
            margin={
              <>
                <EvidenceNotes block={block} passages={passages} open={at === block.id} doubts={doubtsAt(block.id)} />
                <BlockComments
                  article={article.id}
                  block={block.id}
                  comments={comments.get(block.id) ?? []}
                  open={at === block.id}
                />
              </>
            }
          >
            {block.type === 'chart' ? (
              <ChartPicture data={block} language={doc.language} says={block.alternative} />
            ) : null}
            <Drawn
              node={node}
              ringed={doubtsAt(block.id)
                .filter(isInText)
                .map(({ words }) => words)}
            />
          </Row>
        ),
      )}
    </div>
  );
}

function TitleNote({ lead, rests }: { lead: Figure | undefined; rests: boolean }) {
  if (lead)
    return (
      <Note title="Title and lead picture">
        {rests ? '' : 'nothing in this article rests on a source; '}
        {`alternative text: ${lead.alternative}`}
      </Note>
    );
  return rests ? null : <Note title="Evidence">nothing in this article rests on a source</Note>;
}

/** Its title, description and tags, the lead picture beside them. */
function Title({ doc, lead }: { doc: ArticleWhole['document']; lead: Figure | undefined }) {
  const tags = tagsOf(doc);
  const below = lead
    ? [lead.caption, lead.credit].flatMap((words) => (words ? [inlineText(words)] : [])).join(' · ')
    : '';
  return (
    <div className="flex flex-wrap gap-x-8 pt-5">
      <div className="min-w-[300px] flex-1">
        <h1>{doc.title || <span className="text-ink-3">No title yet</span>}</h1>
        <p className="!text-[13px] text-ink-2 italic">{doc.description}</p>
        {tags.length > 0 ? (
          <p dir="ltr" className="!font-ui !text-[12px] text-ink-3">
            Tags: {tags.join(', ')}
          </p>
        ) : null}
      </div>
      {lead ? (
        <figure>
          <img src={HERE.file(lead.file)} alt={lead.alternative} className="h-[120px] w-[250px] object-cover" />
          {below === '' ? null : <figcaption>{below}</figcaption>}
        </figure>
      ) : null}
    </div>
  );
}

function Row({
  id,
  picked = false,
  onPick,
  margin,
  direction,
  children,
}: {
  id?: string;
  /** Which way its text runs. */
  direction: 'ltr' | 'rtl';
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
        dir={direction}
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
