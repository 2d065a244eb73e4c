import { type Block, type Inline, type LinkTarget, type Mark, plainInline } from '@grivo/core';
import { type Mark as EditorMark, Fragment, type Node } from 'prosemirror-model';
import { type BlockAttributes, blockTypeOf, schema, WHOLE, type WholeBlock } from './schema.ts';

const { nodes, marks } = schema;

/** The body of an article as a document of the editor; an empty one gets a paragraph to type in. */
export function documentOf(body: readonly Block[]): Node {
  const blocks = body.map(nodeOf);
  return nodes.doc.create(null, blocks.length > 0 ? blocks : [nodes.paragraph.create()]);
}

/** Nodes never change: what did not change is the same block as before. */
const known = new WeakMap<Node, Block>();

/** The body a document of the editor is, block by block. */
export function bodyOf(document: Node): Block[] {
  const body: Block[] = [];
  document.forEach((node, _, i) => {
    const block = known.get(node) ?? blockOf(node, `at${i}`);
    if (node.attrs['id'] !== null) known.set(node, block);
    body.push(block);
  });
  return body;
}

/** The texts of a block as nodes of the editor. */
export function nodeOf(block: Block): Node {
  const attributes: BlockAttributes = {
    id: block.id,
    evidence: block.evidence ?? null,
    vouched: block.vouched ?? null,
  };
  switch (block.type) {
    case 'paragraph':
      return nodes.paragraph.create(attributes, inline(block.content));
    case 'closing':
      return nodes.closing.create(attributes, inline(block.content));
    case 'standing text':
      return nodes.standing_text.create(attributes, inline(block.content));
    case 'disclosure':
      return nodes.disclosure.create(attributes, inline(block.content));
    case 'heading':
      return nodes.heading.create({ ...attributes, level: block.level }, inline(plainInline(block.text)));
    case 'list':
      return nodes.list.create({ ...attributes, ordered: block.ordered }, items(block.items));
    case 'key points':
      return nodes.key_points.create(attributes, items(block.items));
    case 'quote':
      return nodes.quote.create(attributes, [
        nodes.quote_words.create(null, inline(block.content)),
        nodes.quote_credit.create(null, inline(block.credit ?? [])),
      ]);
    case 'question and answer':
      return nodes.question_and_answer.create(attributes, [
        nodes.question.create(null, inline(plainInline(block.question))),
        nodes.answer.create(null, inline(block.answer)),
      ]);
    case 'table':
      return nodes.table_block.create(attributes, [
        nodes.table_caption.create(null, inline(block.caption ?? [])),
        tableOf(block.head, block.rows),
      ]);
    default: {
      const { id: _, evidence: __, vouched: ___, ...rest } = block;
      return nodes.whole.create({ ...attributes, block: rest });
    }
  }
}

function tableOf(head: readonly Inline[][], rows: readonly Inline[][][]): Node {
  const width = Math.max(1, head.length, ...rows.map((row) => row.length));
  const row = (cells: readonly Inline[][], type: 'table_header' | 'table_cell') =>
    nodes.table_row.create(
      null,
      Array.from({ length: width }, (_, i) => nodes[type].create(null, inline(cells[i] ?? []))),
    );
  return nodes.table.create(null, [row(head, 'table_header'), ...rows.map((cells) => row(cells, 'table_cell'))]);
}

function items(contents: readonly Inline[][]): Node[] {
  return (contents.length > 0 ? contents : [[]]).map((content) => nodes.item.create(null, inline(content)));
}

/** Words as text of the editor; a text of the editor is never empty. */
function inline(content: readonly Inline[]): Fragment {
  return Fragment.fromArray(
    content
      .filter(({ text }) => text !== '')
      .map(({ text, marks: looks = [], link }) =>
        schema.text(text, [
          ...(link ? [marks.link.create({ to: link })] : []),
          ...looks.map((mark) => marks[mark].create()),
        ]),
      ),
  );
}

/** @param unnamed the id of a block that has none yet */
function blockOf(node: Node, unnamed: string): Block {
  const { id, evidence, vouched } = node.attrs as BlockAttributes;
  const common = {
    id: id ?? unnamed,
    ...(evidence && evidence.length > 0 ? { evidence } : {}),
    ...(vouched && vouched.length > 0 ? { vouched } : {}),
  };
  const type = blockTypeOf(node);
  switch (type) {
    case 'paragraph':
    case 'closing':
    case 'standing text':
    case 'disclosure':
      return { ...common, type, content: words(node) };
    case 'heading':
      return { ...common, type, level: node.attrs['level'] as 2 | 3 | 4, text: node.textContent };
    case 'list':
      return { ...common, type, ordered: node.attrs['ordered'] === true, items: node.children.map(words) };
    case 'key points':
      return { ...common, type, items: node.children.map(words) };
    case 'quote': {
      const credit = words(node.child(1));
      return { ...common, type, content: words(node.child(0)), ...(credit.length > 0 ? { credit } : {}) };
    }
    case 'question and answer':
      return { ...common, type, question: node.child(0).textContent, answer: words(node.child(1)) };
    case 'table': {
      const caption = words(node.child(0));
      const [head, ...rows] = node.child(1).children.map((row) => row.children.map(words));
      return { ...common, type, ...(caption.length > 0 ? { caption } : {}), head: head ?? [], rows };
    }
    default:
      return { ...(node.attrs['block'] as WholeBlock), ...common } as Block;
  }
}

const LOOKS: readonly Mark[] = ['strong', 'emphasis', 'code'];

/** The words of a text of the editor. */
export function words(node: Node): Inline[] {
  return node.children.map((text) => {
    const looks = LOOKS.filter((look) => has(text.marks, look));
    const link = text.marks.find(({ type }) => type === marks.link)?.attrs['to'] as LinkTarget | undefined;
    return { text: text.text ?? '', ...(looks.length > 0 ? { marks: looks } : {}), ...(link ? { link } : {}) };
  });
}

const has = (there: readonly EditorMark[], look: Mark) => there.some(({ type }) => type === marks[look]);

/** Whether a block is changed by a form. */
export function isWhole(block: Block): block is WholeBlock {
  return (WHOLE as readonly string[]).includes(block.type);
}
