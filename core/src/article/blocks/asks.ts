import type { CallToAction, Fold, LinkTarget, QuestionAnswer, Side, Size } from '../block.ts';
import { el, htmlInline, htmlLink, htmlText, inlineText, linkAddress, mdParagraph, spansOf } from '../inline.ts';
import { insideOf, OWN } from './inside.ts';
import { type BlockKind, hasWords, type ReadBack } from './kind.ts';

const contentIn = ({ inner }: ReadBack) => inner.flatMap((one) => (one.type === 'paragraph' ? one.content : []));

export const questionAnswer: BlockKind<QuestionAnswer> = {
  isStatement: true,
  texts: (block, { plain, rich }) => ({ ...block, question: plain(block.question), answer: rich(block.answer) }),
  html: ({ question, answer }, { resolve }) =>
    el(
      'section',
      { className: ['question'] },
      el('p', {}, el('strong', {}, htmlText(question))),
      el('p', {}, ...htmlInline(answer, resolve)),
    ),
  markdown: ({ question, answer }, { resolve }) => [
    mdParagraph([{ text: question, marks: ['strong'] }], resolve),
    mdParagraph(answer, resolve),
  ],
  flow: ({ question, answer }, { resolve }) => [
    { type: 'paragraph', look: 'plain', spans: [{ text: question, strong: true }] },
    { type: 'paragraph', look: 'plain', spans: spansOf(answer, resolve) },
  ],
  editing: {
    name: 'question',
    write: ({ question, answer }) => ({
      label: [{ text: question }],
      attributes: {},
      children: [mdParagraph(answer, insideOf)],
    }),
    read: (read) => {
      const question = inlineText(read.label).trim();
      const answer = contentIn(read);
      return question !== '' && hasWords(answer)
        ? { type: 'question and answer', id: read.id(), question, answer }
        : 'a question in square brackets and an answer';
    },
  },
};

const SIDES: readonly Side[] = ['left', 'middle', 'right'];
const SIZES: readonly Size[] = ['small', 'medium', 'full'];
const ALIGNED: Record<Side, string> = { left: 'left', middle: 'center', right: 'right' };
/** Letters and room of a button, in a page that knows nothing of our looks. */
const BUTTONS: Record<Size, string> = {
  small: 'display:inline-block;padding:0.3em 0.8em;font-size:0.875em',
  medium: 'display:inline-block;padding:0.6em 1.2em',
  full: 'display:block;padding:0.9em 1.2em;font-size:1.125em;text-align:center',
};
const FRAME = 'border:1px solid currentColor;border-radius:0.25em';

/** What an edited text says a button leads to. */
function targetOf(address: string): LinkTarget | null {
  if (address.startsWith(OWN)) return { to: 'article', article: address.slice(OWN.length) };
  return /^https?:\/\//.test(address) ? { to: 'address', address } : null;
}

export const callToAction: BlockKind<CallToAction> = {
  isStatement: false,
  texts: (block, { rich, plain }) => ({ ...block, content: rich(block.content), button: plain(block.button) }),
  words: ({ content, button }) => [inlineText(content), button].filter((text) => text !== '').join(' '),
  links: ({ link }) => [link],
  html: ({ content, button, link, size = 'medium', side = 'left' }, { resolve }) => {
    const at = linkAddress(link, resolve);
    const words = hasWords(content) ? [...htmlInline(content, resolve), htmlText(' ')] : [];
    const shown =
      at === null
        ? [htmlText(button)]
        : htmlLink(
            link,
            resolve,
            el('span', { className: ['button'], style: `${BUTTONS[size]};${FRAME}` }, htmlText(button)),
          );
    return el('p', { className: ['call'], style: `text-align:${ALIGNED[side]}` }, ...words, ...shown);
  },
  markdown: ({ content, button, link }, { resolve }) => [
    mdParagraph([...content, ...(hasWords(content) ? [{ text: ' ' }] : []), { text: button, link }], resolve),
  ],
  flow: ({ content, button, link }, { resolve }) => [
    {
      type: 'paragraph',
      look: 'plain',
      spans: spansOf([...content, ...(hasWords(content) ? [{ text: ' ' }] : []), { text: button, link }], resolve),
    },
  ],
  editing: {
    name: 'call-to-action',
    write: ({ content, button, link, size, side }) => ({
      label: [{ text: button }],
      attributes: {
        address: linkAddress(link, insideOf) ?? '',
        ...(size ? { size } : {}),
        ...(side ? { side } : {}),
      },
      children: hasWords(content) ? [mdParagraph(content, insideOf)] : [],
    }),
    read: (read) => {
      const link = targetOf(read.attributes['address'] ?? '');
      const button = inlineText(read.label).trim();
      const size = SIZES.find((one) => one === read.attributes['size']);
      const side = SIDES.find((one) => one === read.attributes['side']);
      if (!link || button === '') return 'a button in square brackets and an address as {address="https://…"}';
      return {
        type: 'call to action',
        id: read.id(),
        content: contentIn(read),
        button,
        link,
        ...(size ? { size } : {}),
        ...(side ? { side } : {}),
      };
    },
  },
};

export const fold: BlockKind<Fold> = {
  isStatement: false,
  texts: (block, { plain }) => ({ ...block, words: plain(block.words) }),
  words: () => '',
  isEmpty: ({ words }) => words.trim() === '',
  // Published it holds what stands below: see `articleHtml`.
  html: ({ words }, { making }) =>
    making ? el('p', { className: ['stands'], dir: 'ltr' }, htmlText(`What follows is shown at “${words}”.`)) : null,
  markdown: () => [],
  flow: () => [],
  editing: {
    name: 'fold',
    write: ({ words }) => ({ label: [{ text: words }], attributes: {}, children: null }),
    read: ({ id, label }) => {
      const words = inlineText(label).trim();
      return words === '' ? 'the words readers open it by, in square brackets' : { type: 'fold', id: id(), words };
    },
  },
};
