import { Fragment, type Node, type NodeType, type ResolvedPos } from 'prosemirror-model';
import { type Command, TextSelection, type Transaction } from 'prosemirror-state';
import { type BlockAttributes, schema } from './schema.ts';

const { nodes } = schema;

/** What a text can be turned into. */
export const TURNS = [
  'paragraph',
  'heading 2',
  'heading 3',
  'heading 4',
  'list',
  'numbered list',
  'key points',
  'quote',
  'question and answer',
  'closing',
  'standing text',
  'disclosure',
] as const;
export type Turn = (typeof TURNS)[number];

const PROSE: Partial<Record<Turn, NodeType>> = {
  paragraph: nodes.paragraph,
  closing: nodes.closing,
  'standing text': nodes.standing_text,
  disclosure: nodes.disclosure,
};

/** The block a place is in. */
export function topAt($at: ResolvedPos): { node: Node; at: number } | null {
  return $at.depth === 0 ? null : { node: $at.node(1), at: $at.before(1) };
}

/** What the block at the selection is; null for one that is changed as a whole. */
export function turnAt($at: ResolvedPos): Turn | null {
  const node = topAt($at)?.node;
  switch (node?.type) {
    case nodes.paragraph:
      return 'paragraph';
    case nodes.closing:
      return 'closing';
    case nodes.standing_text:
      return 'standing text';
    case nodes.disclosure:
      return 'disclosure';
    case nodes.heading:
      return `heading ${node.attrs['level'] as 2 | 3 | 4}`;
    case nodes.list:
      return node.attrs['ordered'] ? 'numbered list' : 'list';
    case nodes.key_points:
      return 'key points';
    case nodes.quote:
      return 'quote';
    case nodes.question_and_answer:
      return 'question and answer';
    default:
      return null;
  }
}

/** The texts of a block in order, each to be a text of its own. */
function textsOf(node: Node): Fragment[] {
  if (node.isTextblock) return [node.content];
  if (node.type === nodes.whole || node.type === nodes.table_block) return [];
  return node.children.flatMap(textsOf).filter(({ size }, i) => size > 0 || i === 0);
}

function plain(content: Fragment): Fragment {
  return content.size === 0 ? content : Fragment.from(schema.text(content.textBetween(0, content.size, ' ')));
}

/** From where to where the blocks at the selection stand. */
export function picked({ $from, $to }: { $from: ResolvedPos; $to: ResolvedPos }): { from: number; to: number } | null {
  const first = topAt($from);
  const last = topAt($to);
  return first && last ? { from: first.at, to: last.at + last.node.nodeSize } : null;
}

/** Turns the blocks of the selection into something else; each keeps its id and what it rests on. */
export function turnInto(turn: Turn): Command {
  return (state, dispatch) => {
    const { tr } = state;
    if (!turnWithin(tr, turn)) return false;
    dispatch?.(tr.scrollIntoView());
    return true;
  };
}

/** The same within a change that is being made. @returns whether it could be done */
export function turnWithin(tr: Transaction, turn: Turn): boolean {
  const range = picked(tr.selection);
  if (!range) return false;
  const blocks: Node[] = [];
  tr.doc.nodesBetween(range.from, range.to, (node, _, parent) => {
    if (parent === tr.doc) blocks.push(node);
    return false;
  });
  if (blocks.some((node) => textsOf(node).length === 0)) return false;
  const made = turned(turn, blocks);
  const end = range.from + made.reduce((sum, node) => sum + node.nodeSize, 0);
  const { to } = tr.selection;
  tr.replaceWith(range.from, range.to, made);
  tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(to + 1, end - 1)), -1));
  return true;
}

function turned(turn: Turn, blocks: readonly Node[]): Node[] {
  const attributes = (node: Node, i = 0): BlockAttributes => ({
    id: i === 0 ? (node.attrs['id'] as string | null) : null,
    evidence: node.attrs['evidence'] as BlockAttributes['evidence'],
    vouched: node.attrs['vouched'] as BlockAttributes['vouched'],
  });
  const prose = PROSE[turn];
  const each = (make: (content: Fragment, attributes: BlockAttributes) => Node) =>
    blocks.flatMap((node) => textsOf(node).map((content, i) => make(content, attributes(node, i))));
  if (prose) return each((content, own) => prose.create(own, content));
  if (turn.startsWith('heading'))
    return each((content, own) => nodes.heading.create({ ...own, level: Number(turn.at(-1)) }, plain(content)));
  if (turn === 'quote')
    return each((content, own) =>
      nodes.quote.create(own, [nodes.quote_words.create(null, content), nodes.quote_credit.create()]),
    );
  if (turn === 'question and answer')
    return blocks.map((node) => {
      const [first, ...rest] = textsOf(node);
      return nodes.question_and_answer.create(attributes(node), [
        nodes.question.create(null, plain(first!)),
        nodes.answer.create(null, rest.length > 0 ? spaced(rest) : null),
      ]);
    });
  // A list takes up all of them, with everything they rest on.
  const items = blocks.flatMap((node) => textsOf(node).map((content) => nodes.item.create(null, content)));
  const own = {
    id: blocks[0]!.attrs['id'] as string | null,
    evidence: blocks.flatMap((node) => (node.attrs['evidence'] as BlockAttributes['evidence']) ?? []),
    vouched: blocks.flatMap((node) => (node.attrs['vouched'] as BlockAttributes['vouched']) ?? []),
  };
  return [
    turn === 'key points'
      ? nodes.key_points.create(own, items)
      : nodes.list.create({ ...own, ordered: turn === 'numbered list' }, items),
  ];
}

/** Texts one behind the other, a blank between. */
function spaced(contents: readonly Fragment[]): Fragment {
  return contents.reduce((all, one) =>
    all.size === 0 || one.size === 0 ? all.append(one) : all.append(Fragment.from(schema.text(' '))).append(one),
  );
}
