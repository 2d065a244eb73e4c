import type { PhrasingContent, Root, RootContent } from 'mdast';
import { type Directives, directiveFromMarkdown, directiveToMarkdown } from 'mdast-util-directive';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown, gfmToMarkdown } from 'mdast-util-gfm';
import { toMarkdown } from 'mdast-util-to-markdown';
import { directive } from 'micromark-extension-directive';
import { gfm } from 'micromark-extension-gfm';
import { alignBlocks } from './align.ts';
import type { Block, BlockType, Inline, LinkTarget } from './block.ts';
import { BLOCKS, kindOf } from './blocks/all.ts';
import { insideOf, OWN } from './blocks/inside.ts';
import type { BlockKind, Wrong } from './blocks/kind.ts';
import { blocksOf, inlineOf, type ReadLink } from './fromText.ts';
import { hereOf } from './here.ts';
import { phrasing, trimInline } from './inline.ts';
import { linksOf } from './text.ts';

/** Something in an edited text that cannot become a block. */
export interface TextProblem {
  /** From 1. */
  line: number;
  sentence: string;
  mend: string;
}

export type ReadBody = { ok: true; body: Block[] } | { ok: false; problems: TextProblem[] };

/** Kinds that are no plain text, by the name they carry in an edited text. */
const NAMED = new Map(
  (Object.entries(BLOCKS) as [BlockType, BlockKind<Block>][]).flatMap(([type, { editing }]) =>
    editing ? [[editing.name, { type, editing }] as const] : [],
  ),
);

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

function bare({ id: _, evidence: __, vouched: ___, ...rest }: Block): object {
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

/** A label ends at its bracket, and in code none can be written as a letter: such words stand there as plain ones. */
const asLabel = ({ marks, ...inline }: Inline): Inline =>
  marks?.includes('code') && /[[\]]/.test(inline.text)
    ? { ...inline, marks: marks.filter((mark) => mark !== 'code') }
    : marks
      ? { ...inline, marks }
      : inline;

function nodesOf(block: Block): RootContent[] {
  const kind = kindOf(block);
  const written = kind.editing?.write(block) ?? null;
  if (written === null) return kind.markdown(block, hereOf([block], insideOf));
  const label = phrasing(written.label.map(asLabel), insideOf);
  const directive = { name: kind.editing!.name, attributes: written.attributes };
  if (written.children === null)
    return [{ type: 'leafDirective', ...directive, children: label } as unknown as RootContent];
  const head = label.length > 0 ? [{ type: 'paragraph', data: { directiveLabel: true }, children: label }] : [];
  return [
    { type: 'containerDirective', ...directive, children: [...head, ...written.children] } as unknown as RootContent,
  ];
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
  const link = readLink(former);
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
function readLink(former: readonly Block[]): ReadLink {
  const sponsored = new Set<string>();
  for (const link of former.flatMap(linksOf)) if (link.to === 'address' && link.sponsored) sponsored.add(link.address);
  return (url): LinkTarget | null => {
    if (url.startsWith(OWN)) return { to: 'article', article: url.slice(OWN.length) };
    if (!/^https?:\/\//.test(url)) return null;
    return { to: 'address', address: url, ...(sponsored.has(url) ? { sponsored: true } : {}) };
  };
}

function blockOfDirective(
  node: Exclude<Directives, { type: 'textDirective' }>,
  former: readonly Block[],
  id: () => string,
  link: ReadLink,
): Block | Wrong {
  const found = NAMED.get(node.name);
  if (!found)
    return {
      sentence: `‘${node.name}’ is not part of an article.`,
      mend: `There are ${[...NAMED.keys()].join(', ')}.`,
    };
  const { type, editing } = found;
  const children = node.children as RootContent[];
  const isLabel = (child: RootContent) =>
    child.type === 'paragraph' && (child.data as { directiveLabel?: boolean } | undefined)?.directiveLabel === true;
  const labelled = children.filter(isLabel).flatMap((child) => (child as { children: PhrasingContent[] }).children);
  const label = node.type === 'leafDirective' ? (node.children as PhrasingContent[]) : labelled;
  const attributes = Object.fromEntries(
    Object.entries(node.attributes ?? {}).map(([name, value]) => [name, value ?? '']),
  );
  const own = former.find((one) => one.id === attributes['id'] && one.type === type) ?? null;
  if (editing.named && own === null) {
    const there = former.filter((one) => one.type === type).map((one) => `#${one.id}`);
    return {
      sentence: `The article has no ${node.name} ‘${attributes['id'] ?? ''}’.`,
      mend: there.length > 0 ? `It has ${there.join(', ')}.` : 'Take the line out.',
    };
  }
  const inner =
    node.type === 'leafDirective'
      ? []
      : children.filter((child) => !isLabel(child)).flatMap((child) => blocksOf(child, id, link));
  const read = editing.read({ id, label: trimInline(inlineOf(label, link)), attributes, inner, own });
  return typeof read === 'string'
    ? { sentence: `‘${node.name}’ needs ${read}.`, mend: 'Fill it, or take it out.' }
    : read;
}
