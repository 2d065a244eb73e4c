import { tooNested } from '@grivo/core';
import type { Nodes, RootContent } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { toString as textIn } from 'mdast-util-to-string';
import { gfm } from 'micromark-extension-gfm';
import type { DocumentText, Unread } from './text.ts';

const MOST_DEEP = 200;

function* textsIn(node: Nodes, depth: number): Generator<RootContent> {
  if (depth > MOST_DEEP) return;
  if (node.type === 'paragraph' || node.type === 'heading' || node.type === 'tableRow') yield node;
  else if ('children' in node) for (const child of node.children) yield* textsIn(child, depth + 1);
}

/** The text of a Markdown file, without its front matter and its marks. */
export function readMarkdown(text: string): DocumentText | Unread {
  if (tooNested(text)) return { problem: 'its parts lie too deep in each other' };
  const front = /^---\r?\n([\s\S]*?)\r?\n---\r?\n/.exec(text);
  const named =
    (front?.[1] ?? '')
      .split(/\r?\n/)
      .filter((line) => line.startsWith('title:'))
      .map((line) => line.slice(6).trim())
      .map((said) => (/^(?:".*"|'.*')$/.test(said) ? said.slice(1, -1) : said))[0] ?? '';
  const tree = fromMarkdown(front ? text.slice(front[0].length) : text, {
    extensions: [gfm()],
    mdastExtensions: [gfmFromMarkdown()],
  });
  const paragraphs: DocumentText['paragraphs'] = [];
  let heading = '';
  let title = named;
  for (const node of textsIn(tree, 0)) {
    const said =
      node.type === 'tableRow'
        ? node.children
            .map((cell) => textIn(cell).trim())
            .filter(Boolean)
            .join(' | ')
        : textIn(node);
    const even = said.replace(/\s+/g, ' ').trim();
    if (even === '') continue;
    if (node.type === 'heading') {
      if (node.depth === 1 && title === '') title = even.slice(0, 500);
      else heading = even.slice(0, 200);
    } else paragraphs.push({ text: even, heading });
  }
  return { title, language: null, published: null, paragraphs };
}

export function readPlain(text: string): DocumentText {
  const parts = text
    .split(/\r?\n\s*\r?\n/)
    .map((part) => part.replace(/\s+/g, ' ').trim())
    .filter((part) => part !== '');
  // A short first line over longer ones is what the text is called.
  const title = parts.length > 1 && parts[0]!.length <= 100 && !/[.!?]$/.test(parts[0]!) ? parts[0]! : '';
  return {
    title,
    language: null,
    published: null,
    paragraphs: (title === '' ? parts : parts.slice(1)).map((part) => ({ text: part, heading: '' })),
  };
}
