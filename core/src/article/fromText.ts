import type { PhrasingContent, RootContent } from 'mdast';
import type { Block, Inline, LinkTarget, Mark } from './block.ts';
import { inlineText, plainInline } from './inline.ts';

/** Where a link of a text leads in an article; null when it is left out. */
export type ReadLink = (url: string) => LinkTarget | null;

const webLink: ReadLink = (address) => (/^https?:\/\//.test(address) ? { to: 'address', address } : null);

/** The blocks of one node of a Markdown document; most are one, what has no place in an article is none. */
export function blocksOf(node: RootContent, id: () => string, link: ReadLink = webLink): Block[] {
  switch (node.type) {
    case 'heading': {
      const text = lineOf(node.children, link);
      return text === '' ? [] : [{ type: 'heading', id: id(), level: clamp(node.depth), text }];
    }
    case 'paragraph': {
      const content = inlineOf(node.children, link);
      return content.length === 0 ? [] : [{ type: 'paragraph', id: id(), content }];
    }
    case 'list':
      return [
        {
          type: 'list',
          id: id(),
          ordered: node.ordered === true,
          items: node.children
            .map((item) => flowing(item.children, link))
            .filter((item) => item.some(({ text }) => text.trim() !== '')),
        },
      ];
    case 'blockquote':
      return [{ type: 'quote', id: id(), content: flowing(node.children, link) }];
    case 'table': {
      const [head, ...rows] = node.children.map((row) => row.children.map((cell) => inlineOf(cell.children, link)));
      return [{ type: 'table', id: id(), head: head ?? [], rows }];
    }
    case 'code':
      return [{ type: 'paragraph', id: id(), content: [{ text: node.value, marks: ['code'] }] }];
    case 'html': {
      // What a page would do is none of its words.
      const text = /^\s*<(?:script|style)\b/i.test(node.value) ? '' : withoutTags(node.value);
      return text === '' ? [] : [{ type: 'paragraph', id: id(), content: [{ text }] }];
    }
    default:
      return [];
  }
}

/** Blocks one after the other as the words of one. */
function flowing(nodes: readonly RootContent[], link: ReadLink): Inline[] {
  return nodes.flatMap((node, i): Inline[] => {
    const inline = node.type === 'paragraph' ? inlineOf(node.children, link) : plainInline(deepText(node));
    return i === 0 ? inline : [{ text: ' ' }, ...inline];
  });
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', nbsp: ' ', '#39': '’' };

/** The words of a piece of HTML. */
function withoutTags(html: string): string {
  return html
    .replace(/<[^<>]*>/g, ' ')
    .replace(/&(amp|lt|gt|quot|nbsp|#39);/g, (_, name: string) => ENTITIES[name]!)
    .replace(/\s+/g, ' ')
    .trim();
}

function clamp(depth: number): 2 | 3 | 4 {
  return depth <= 2 ? 2 : depth === 3 ? 3 : 4;
}

/** The words of inline nodes, with their marks and links. */
export function inlineOf(
  nodes: readonly PhrasingContent[],
  link: ReadLink,
  marks: readonly Mark[] = [],
  leads?: LinkTarget,
): Inline[] {
  const part = (text: string, own: readonly Mark[] = marks): Inline[] =>
    text === '' ? [] : [{ text, ...(own.length > 0 ? { marks: [...own] } : {}), ...(leads ? { link: leads } : {}) }];
  return nodes.flatMap((node): Inline[] => {
    switch (node.type) {
      case 'text':
        return part(node.value.replace(/\s+/g, ' '));
      case 'strong':
        return inlineOf(node.children, link, [...marks, 'strong'], leads);
      case 'emphasis':
        return inlineOf(node.children, link, [...marks, 'emphasis'], leads);
      case 'inlineCode':
        return part(node.value, [...marks, 'code']);
      case 'link':
        return inlineOf(node.children, link, marks, link(node.url) ?? leads);
      case 'delete':
        return inlineOf(node.children, link, marks, leads);
      case 'break':
        return part(' ');
      case 'image':
        return part(node.alt ?? '');
      case 'html':
        return /^<br\b/i.test(node.value) ? part(' ') : [];
      default:
        return [];
    }
  });
}

function lineOf(nodes: readonly PhrasingContent[], link: ReadLink): string {
  return inlineText(inlineOf(nodes, link)).trim();
}

function deepText(node: RootContent | { type: string; children?: unknown[]; value?: string }): string {
  if ('value' in node && typeof node.value === 'string') return node.value;
  return 'children' in node && Array.isArray(node.children)
    ? (node.children as RootContent[]).map(deepText).join('')
    : '';
}
