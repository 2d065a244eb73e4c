import type { ArticleDocument, Block, Inline } from './block.ts';
import { linkAddress, type Resolve } from './html.ts';

/** Words of one look. */
export interface FlowSpan {
  text: string;
  strong?: boolean;
  emphasis?: boolean;
  code?: boolean;
  /** Where they lead. */
  href?: string;
}

export type FlowPart =
  | { type: 'heading'; level: 2 | 3 | 4; text: string; anchor: string }
  | { type: 'paragraph'; look: 'plain' | 'quote' | 'note'; spans: FlowSpan[] }
  | { type: 'list'; ordered: boolean; items: FlowSpan[][] }
  | { type: 'table'; head: string[]; rows: string[][]; caption: string }
  | { type: 'picture'; file: string; width: number; height: number; alternative: string; note: string }
  | { type: 'contents'; entries: { text: string; anchor: string }[] };

/**
 * An article as a flow of few plain parts, for forms that are printed or opened in a word processor. What only a web page
 * can show is told in words: a video by its link, a chart by its table. The owner's own markup is left out.
 */
export function articleFlow(article: Pick<ArticleDocument, 'body'>, resolve: Resolve): FlowPart[] {
  const anchors = new Map(article.body.map((block, n) => [block, `part${n + 1}`]));
  return article.body.flatMap((block) => partsOf(block, article.body, anchors, resolve));
}

function partsOf(
  block: Block,
  body: readonly Block[],
  anchors: ReadonlyMap<Block, string>,
  resolve: Resolve,
): FlowPart[] {
  const words = (content: readonly Inline[]) => content.map((part) => spanOf(part, resolve));
  const plain = (...spans: FlowSpan[]): FlowPart => ({ type: 'paragraph', look: 'plain', spans });
  switch (block.type) {
    case 'heading':
      return [{ type: 'heading', level: block.level, text: block.text, anchor: anchors.get(block) ?? '' }];
    case 'paragraph':
    case 'standing text':
      return [plain(...words(block.content))];
    case 'list':
      return [{ type: 'list', ordered: block.ordered, items: block.items.map(words) }];
    case 'key points':
      return [{ type: 'list', ordered: false, items: block.items.map((text) => [{ text }]) }];
    case 'table':
      return [{ type: 'table', head: block.head, rows: block.rows, caption: block.caption ?? '' }];
    case 'chart':
      return [
        {
          type: 'table',
          head: ['', ...block.labels],
          rows: block.series.map(({ name, values }) => [name, ...values.map(String)]),
          caption: block.alternative,
        },
      ];
    case 'figure': {
      const { file, width, height, alternative } = block;
      const note = [block.caption, block.credit].filter(Boolean).join(' · ');
      return [{ type: 'picture', file, width, height, alternative, note }];
    }
    case 'quote':
      return [
        { type: 'paragraph', look: 'quote', spans: [{ text: block.text }] },
        ...(block.attribution
          ? [{ type: 'paragraph', look: 'note', spans: [{ text: `— ${block.attribution}` }] } satisfies FlowPart]
          : []),
      ];
    case 'video':
      return [plain({ text: block.title, href: block.address })];
    case 'question and answer':
      return [plain({ text: block.question, strong: true }), plain(...words(block.answer))];
    case 'call to action':
      return [plain({ text: `${block.text} ` }, { text: block.button, href: block.address })];
    case "owner's markup":
      return [];
    case 'contents': {
      const entries = body.flatMap((other) =>
        other.type === 'heading' && other.level === 2 ? [{ text: other.text, anchor: anchors.get(other) ?? '' }] : [],
      );
      return entries.length === 0 ? [] : [{ type: 'contents', entries }];
    }
  }
}

function spanOf({ text, marks = [], link }: Inline, resolve: Resolve): FlowSpan {
  const href = link ? linkAddress(link, resolve) : null;
  return {
    text,
    ...(marks.includes('strong') ? { strong: true } : {}),
    ...(marks.includes('emphasis') ? { emphasis: true } : {}),
    ...(marks.includes('code') ? { code: true } : {}),
    ...(href === null ? {} : { href }),
  };
}
