import type { Root, RootContent } from 'mdast';
import { type Directives, directiveFromMarkdown, directiveToMarkdown } from 'mdast-util-directive';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown, gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import { directive } from 'micromark-extension-directive';
import { gfm } from 'micromark-extension-gfm';
import { alignBlocks } from './align.ts';
import type { Block, LinkTarget } from './block.ts';
import { blocksOf, type ReadLink } from './fromText.ts';
import { blockNodes } from './markdown.ts';
import { inlinesOf, inlineText } from './text.ts';

/** Something in an edited text that cannot become a block. */
export interface TextProblem {
  /** From 1. */
  line: number;
  sentence: string;
  mend: string;
}

export type ReadBody = { ok: true; body: Block[] } | { ok: false; problems: TextProblem[] };

/** Links to our own articles are written as the page they have here. */
const OWN = '/articles/';

/** Blocks that are no plain text, by the name they carry in an edited text (the generic directives of CommonMark extensions). */
const NAMES = {
  'key points': 'key-points',
  'standing text': 'standing-text',
  'question and answer': 'question',
  'call to action': 'call-to-action',
  figure: 'picture',
  video: 'video',
  chart: 'chart',
  "owner's markup": 'owners-markup',
  contents: 'contents',
} as const;
type Named = keyof typeof NAMES;

const resolve = { file: (digest: string) => digest, article: (id: string) => `${OWN}${id}` };

/**
 * The body as Markdown to be edited: text as it is usual, key points, questions and calls to action in named containers
 * (`:::key-points`), pictures, videos and charts as one line that names the block (`::picture[alternative text]{#b3}`).
 * {@link readEditable} is its counterpart.
 */
export function editableText(body: readonly Block[]): string {
  return textOfBlocks(body);
}

/**
 * The blocks of an edited text, each with the identity and the evidence of the block it comes from; see
 * {@link alignBlocks}. What was left as it was comes back as it was.
 */
export function readEditable(text: string, former: readonly Block[]): ReadBody {
  const found = parse(text, former);
  if (!found.ok) return found;
  // Compared is what becomes of a block that is written out and read in: whatever Markdown cannot say is no change.
  const readBack = (block: Block) => {
    const read = parse(textOfBlocks([block]), former);
    return JSON.stringify(read.ok ? read.body.map(bare) : null);
  };
  return {
    ok: true,
    body: alignBlocks(former, found.body, { former: readBack, edited: (block) => JSON.stringify([bare(block)]) }),
  };
}

function bare({ id: _, evidence: __, ...rest }: Block): object {
  return rest;
}

function textOfBlocks(blocks: readonly Block[]): string {
  const root: Root = { type: 'root', children: blocks.flatMap(nodesOf) };
  const { handlers } = directiveToMarkdown();
  return toMarkdown(root, {
    // Only at the beginning of a line two colons mean something here.
    extensions: [gfmToMarkdown(), { handlers: handlers!, unsafe: [{ atBreak: true, character: ':', after: ':' }] }],
    bullet: '-',
    emphasis: '_',
  }).replace(/\n$/, '');
}

function nodesOf(block: Block): RootContent[] {
  const label = (text: string) => [{ type: 'text' as const, value: text }];
  const named = (
    kind: Named,
    attributes: Record<string, string>,
  ): { name: string; attributes: Record<string, string> } => ({ name: NAMES[kind], attributes });
  const headed = (text: string, children: RootContent[]): RootContent[] => [
    { type: 'paragraph', data: { directiveLabel: true }, children: label(text) } as RootContent,
    ...children,
  ];
  const container = (kind: Named, attributes: Record<string, string>, children: RootContent[]): RootContent[] => [
    { type: 'containerDirective', ...named(kind, attributes), children } as unknown as RootContent,
  ];
  const leaf = (kind: Named, attributes: Record<string, string>, text: string): RootContent[] => [
    { type: 'leafDirective', ...named(kind, attributes), children: label(text) } as unknown as RootContent,
  ];
  switch (block.type) {
    case 'key points':
    case 'standing text':
      return container(block.type, {}, blockNodes(block, resolve));
    case 'question and answer':
      return container(
        block.type,
        {},
        headed(block.question, blockNodes({ type: 'paragraph', id: block.id, content: block.answer }, resolve)),
      );
    case 'call to action':
      return container(
        block.type,
        { address: block.address },
        headed(block.button, blockNodes({ type: 'paragraph', id: block.id, content: [{ text: block.text }] }, resolve)),
      );
    case 'figure':
      return leaf(
        block.type,
        { id: block.id, ...(block.caption ? { caption: block.caption } : {}) },
        block.alternative,
      );
    case 'video':
      return leaf(block.type, { id: block.id }, block.title);
    case 'chart':
      return leaf(block.type, { id: block.id }, block.alternative);
    case "owner's markup":
      return leaf(block.type, { id: block.id }, '');
    case 'contents':
      return leaf(block.type, {}, '');
    case 'table':
      return blockNodes({ ...block, caption: '' }, resolve);
    case 'quote':
      return blockNodes({ ...block, attribution: '' }, resolve);
    default:
      return blockNodes(block, resolve);
  }
}

function parse(text: string, former: readonly Block[]): ReadBody {
  const directives = directive();
  const root = fromMarkdown(text, {
    // Directives inside a line are left out: a colon before a word is punctuation.
    extensions: [gfm(), { flow: directives.flow! }],
    mdastExtensions: [gfmFromMarkdown(), directiveFromMarkdown()],
  });
  const problems: TextProblem[] = [];
  let n = 0;
  const id = () => `read${++n}`;
  const link = linksOf(former);
  const body = root.children.flatMap((node): Block[] => {
    if (node.type !== 'containerDirective' && node.type !== 'leafDirective') return blocksOf(node, id, link);
    const read = blockOfDirective(node, former, id, link);
    if ('sentence' in read) {
      problems.push({ line: node.position?.start.line ?? 1, ...read });
      return [];
    }
    return [read];
  });
  return problems.length > 0 ? { ok: false, problems } : { ok: true, body };
}

/** An address that was marked as sponsored stays so; a link to an article of ours is one again. */
function linksOf(former: readonly Block[]): ReadLink {
  const sponsored = new Set<string>();
  for (const { link } of former.flatMap(inlinesOf))
    if (link?.to === 'address' && link.sponsored) sponsored.add(link.address);
  return (url): LinkTarget | null => {
    if (url.startsWith(OWN)) return { to: 'article', article: url.slice(OWN.length) };
    if (!/^https?:\/\//.test(url)) return null;
    return { to: 'address', address: url, ...(sponsored.has(url) ? { sponsored: true } : {}) };
  };
}

type Wrong = { sentence: string; mend: string };

function blockOfDirective(
  node: Exclude<Directives, { type: 'textDirective' }>,
  former: readonly Block[],
  id: () => string,
  link: ReadLink,
): Block | Wrong {
  const type = (Object.keys(NAMES) as Named[]).find((kind) => NAMES[kind] === node.name);
  if (!type)
    return {
      sentence: `‘${node.name}’ is not part of an article.`,
      mend: `There are ${Object.values(NAMES).join(', ')}.`,
    };
  const isLabel = (child: RootContent) =>
    child.type === 'paragraph' && (child.data as { directiveLabel?: boolean } | undefined)?.directiveLabel === true;
  const children = node.children as RootContent[];
  const inner = children.filter((child) => !isLabel(child)).flatMap((child) => blocksOf(child, id, link));
  const text = inner.map((block) => inlineText(inlinesOf(block))).join(' ');
  const labelled = node.type === 'leafDirective' ? children : children.filter(isLabel);
  const label = labelled
    .flatMap((child) => blocksOf(child.type === 'paragraph' ? child : wrap(child), id, link))
    .map((block) => inlineText(inlinesOf(block)))
    .join('')
    .trim();
  switch (type) {
    case 'contents':
      return { type, id: id() };
    case 'key points': {
      const items = inner.flatMap((block) => (block.type === 'list' ? block.items.map(inlineText) : [textOr(block)]));
      const kept = items.map((item) => item.trim()).filter((item) => item !== '');
      return kept.length > 0 ? { type, id: id(), items: kept } : empty(node.name, 'a list');
    }
    case 'standing text':
      return { type, id: id(), content: inner.flatMap(inlinesOf) };
    case 'question and answer':
      return label === '' || text === ''
        ? empty(node.name, 'a question in square brackets and an answer')
        : { type, id: id(), question: label, answer: inner.flatMap(inlinesOf) };
    case 'call to action': {
      const address = node.attributes?.['address'] ?? '';
      return /^https?:\/\//.test(address) && label !== ''
        ? { type, id: id(), text, button: label, address }
        : empty(node.name, 'a button in square brackets and an address as {address="https://…"}');
    }
    default:
      return ownBlock(type, node, label, former);
  }
}

/** A block that stands outside the text and is only named in it. */
function ownBlock(
  type: 'figure' | 'video' | 'chart' | "owner's markup",
  node: Exclude<Directives, { type: 'textDirective' }>,
  label: string,
  former: readonly Block[],
): Block | Wrong {
  const named = node.attributes?.['id'] ?? '';
  const block = former.find((one) => one.id === named && one.type === type);
  if (!block) {
    const there = former.filter((one) => one.type === type).map((one) => `#${one.id}`);
    return {
      sentence: `The article has no ${node.name} ‘${named}’.`,
      mend: there.length > 0 ? `It has ${there.join(', ')}.` : 'Take the line out.',
    };
  }
  switch (block.type) {
    case 'figure': {
      const { caption: _, ...rest } = block;
      const caption = node.attributes?.['caption'] ?? '';
      return { ...rest, alternative: label, ...(caption === '' ? {} : { caption }) };
    }
    case 'video':
      return { ...block, title: label };
    case 'chart':
      return { ...block, alternative: label };
    default:
      return block;
  }
}

function wrap(child: RootContent): RootContent {
  return { type: 'paragraph', children: [child] } as RootContent;
}

function textOr(block: Block): string {
  return inlineText(inlinesOf(block));
}

function empty(name: string, wants: string): Wrong {
  return { sentence: `‘${name}’ needs ${wants}.`, mend: 'Fill it, or take it out.' };
}
