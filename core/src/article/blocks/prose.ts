import type { Closing, Disclosure, Inline, Paragraph, StandingText } from '../block.ts';
import { el, emphasised, htmlInline, inlineText, mdParagraph, spansOf } from '../inline.ts';
import { insideOf } from './inside.ts';
import type { BlockKind, Here } from './kind.ts';

interface Prose {
  content: Inline[];
}

const texts = <B extends Prose>(block: B, { rich }: { rich: (content: readonly Inline[]) => Inline[] }): B => ({
  ...block,
  content: rich(block.content),
});

export const paragraph: BlockKind<Paragraph> = {
  isStatement: true,
  texts,
  html: (block, { resolve }) => el('p', {}, ...htmlInline(block.content, resolve)),
  markdown: (block, { resolve }) => [mdParagraph(block.content, resolve)],
  flow: (block, { resolve }) => [{ type: 'paragraph', look: 'plain', spans: spansOf(block.content, resolve) }],
};

/** A paragraph with a name: what it is shows on a page by its class, and in an edited text by its container. */
function namedProse<T extends Closing | StandingText | Disclosure>(
  type: T['type'],
  { name, className, note, isStatement }: { name: string; className: string; note: boolean; isStatement: boolean },
): BlockKind<T> {
  const words = (block: T) => (note ? emphasised(block.content) : block.content);
  return {
    isStatement,
    texts,
    html: (block: T, { resolve }: Here) => el('p', { className: [className] }, ...htmlInline(block.content, resolve)),
    markdown: (block: T, { resolve }: Here) => [mdParagraph(words(block), resolve)],
    flow: (block: T, { resolve }: Here) => [
      { type: 'paragraph', look: note ? 'note' : 'plain', spans: spansOf(block.content, resolve) },
    ],
    editing: {
      name,
      write: (block) => ({ label: [], attributes: {}, children: [mdParagraph(block.content, insideOf)] }),
      read: ({ id, inner }) => {
        const content = inner.flatMap((one) => (one.type === 'paragraph' ? one.content : []));
        return inlineText(content).trim() === '' ? 'a paragraph' : ({ type, id: id(), content } as T);
      },
    },
  };
}

export const closing = namedProse<Closing>('closing', {
  name: 'closing',
  className: 'closing',
  note: false,
  isStatement: true,
});
export const standingText = namedProse<StandingText>('standing text', {
  name: 'standing-text',
  className: 'standing',
  note: false,
  isStatement: false,
});
export const disclosure = namedProse<Disclosure>('disclosure', {
  name: 'disclosure',
  className: 'disclosure',
  note: true,
  isStatement: false,
});
