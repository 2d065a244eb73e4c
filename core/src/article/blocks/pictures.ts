import type { Element } from 'hast';
import type { Figure, Placeholder, Side, Size, Video } from '../block.ts';
import {
  el,
  emphasised,
  htmlInline,
  htmlLink,
  htmlText,
  inlineText,
  joined,
  linkAddress,
  mdParagraph,
  type PictureCopy,
  type Resolve,
  spansOf,
} from '../inline.ts';
import { insideOf } from './inside.ts';
import { type BlockKind, hasWords } from './kind.ts';

/** Share of the width of the text that a picture takes at most. */
const SHARES: Record<Size, number> = { small: 0.35, medium: 0.6, full: 1 };
const RUNS_PAST: Record<Side, string> = {
  left: 'float:left;margin:0 1.5em 1em 0',
  middle: 'margin-left:auto;margin-right:auto',
  right: 'float:right;margin:0 0 1em 1.5em',
};

/** What stands below a picture. */
const noteOf = ({ caption, credit }: Figure) => joined(' · ', caption, credit);

/** A page knows nothing of our looks, so a size and a side that were chosen are said in the element itself. */
function placeOf({ size = 'full', side = 'middle' }: Figure): { className?: string[]; style?: string } {
  if (size === 'full') return {};
  return { className: [size, side], style: `max-width:${SHARES[size] * 100}%;${RUNS_PAST[side]}` };
}

/** Pixels a column of text is wide on most pages, and the width of a window from which it is not wider. */
const COLUMN = 720;

/**
 * A picture that comes in the width a reader's screen has use for, in the smallest form it can show (HTML Living Standard
 * 4.8.4). Whoever knows none of it shows the picture itself.
 */
function shownIn({ file, size = 'full' }: Figure, image: Element, { copies }: Resolve): Element {
  const all = copies?.(file) ?? [];
  const set = (form: PictureCopy['form']) =>
    all.flatMap((copy) => (copy.form === form ? [`${copy.address} ${copy.width}w`] : []));
  const [webp, avif] = [set('webp'), set('avif')];
  const share = SHARES[size];
  const sizes = `(max-width: ${COLUMN}px) ${share * 100}vw, ${share * COLUMN}px`;
  if (webp.length > 1) image.properties = { ...image.properties, srcSet: webp.join(', '), sizes };
  if (avif.length === 0) return image;
  return el('picture', {}, el('source', { type: 'image/avif', srcSet: avif.join(', '), sizes }), image);
}

export const figure: BlockKind<Figure> = {
  isStatement: false,
  texts: (block, { rich, aside, credit }) => ({
    ...block,
    alternative: aside(block.alternative),
    ...(block.caption ? { caption: rich(block.caption) } : {}),
    ...(block.credit ? { credit: credit(block.credit) } : {}),
  }),
  words: ({ caption }) => inlineText(caption ?? []),
  links: ({ link }) => (link ? [link] : []),
  bare: ({ caption, credit, ...block }) => ({
    ...block,
    ...(caption && hasWords(caption) ? { caption } : {}),
    ...(credit && hasWords(credit) ? { credit } : {}),
  }),
  isEmpty: () => false,
  html: (block, { resolve }) => {
    const { file, alternative, width, height, link } = block;
    const image = shownIn(block, el('img', { src: resolve.file(file), alt: alternative, width, height }), resolve);
    const note = htmlInline(noteOf(block), resolve);
    return el(
      'figure',
      placeOf(block),
      ...htmlLink(link, resolve, image),
      ...(note.length > 0 ? [el('figcaption', {}, ...note)] : []),
    );
  },
  markdown: (block, { resolve }) => {
    const { file, alternative, link } = block;
    const image = { type: 'image' as const, url: resolve.file(file), alt: alternative };
    const url = link ? linkAddress(link, resolve) : null;
    const note = noteOf(block);
    return [
      { type: 'paragraph', children: [url === null ? image : { type: 'link', url, children: [image] }] },
      ...(note.length > 0 ? [mdParagraph(emphasised(note), resolve)] : []),
    ];
  },
  flow: (block, { resolve }) => {
    const { file, width, height, alternative, size = 'full' } = block;
    const note = spansOf(noteOf(block), resolve);
    return [{ type: 'picture', file, width, height, alternative, note, share: SHARES[size] }];
  },
  editing: {
    name: 'picture',
    named: true,
    write: ({ id, alternative, caption }) => ({
      label: alternative === '' ? [] : [{ text: alternative }],
      attributes: { id },
      children: caption && hasWords(caption) ? [mdParagraph(caption, insideOf)] : null,
    }),
    read: ({ own, label, inner }) => {
      const { caption: _, ...rest } = own as Figure;
      const caption = inner.flatMap((one) => (one.type === 'paragraph' ? one.content : []));
      return { ...rest, alternative: inlineText(label), ...(hasWords(caption) ? { caption } : {}) };
    },
  },
};

export const video: BlockKind<Video> = {
  isStatement: false,
  texts: (block) => block,
  isEmpty: () => false,
  /**
   * Its still, kept by the blog, and its player or film once a reader opens it: until then nothing is asked of its host
   * (what is folded away and lazy is not loaded, HTML Living Standard 4.8.5 and 4.11.1). The link always stands below.
   */
  html: ({ address, title, player, film, picture }, { resolve, making }) => {
    const still = picture
      ? el('img', { src: resolve.file(picture.file), alt: '', width: picture.width, height: picture.height })
      : null;
    const named = el('a', { href: address }, htmlText(title));
    const shown = player
      ? el('iframe', { src: player, title, width: 560, height: 315, loading: 'lazy', allowFullScreen: true })
      : film
        ? el('video', { src: film, controls: true, preload: 'none' })
        : null;
    const framed = (inner: Element) => el('figure', { className: ['video'] }, inner, el('figcaption', {}, named));
    if (!shown) return still ? framed(el('a', { href: address, ariaLabel: title }, still)) : el('p', {}, named);
    const pressed = el('summary', {}, ...(still ? [still] : []), htmlText(`▶ ${title}`));
    return framed(el('details', making ? { open: true } : {}, pressed, shown));
  },
  markdown: ({ title, address }, { resolve }) => [
    mdParagraph([{ text: title, link: { to: 'address', address } }], resolve),
  ],
  flow: ({ title, address }) => [{ type: 'paragraph', look: 'plain', spans: [{ text: title, href: address }] }],
  editing: {
    name: 'video',
    named: true,
    write: ({ id, title }) => ({ label: [{ text: title }], attributes: { id }, children: null }),
    read: ({ own, label }) => ({ ...(own as Video), title: inlineText(label) }),
  },
};

const WANTS = ['picture', 'video', 'table', 'chart', 'text'] as const;

export const placeholder: BlockKind<Placeholder> = {
  isStatement: false,
  texts: (block) => block,
  isEmpty: () => false,
  html: ({ wants, says }, { making }) =>
    making ? el('p', { className: ['stands'], dir: 'ltr' }, htmlText(`A ${wants} is to stand here: ${says}`)) : null,
  markdown: () => [],
  flow: () => [],
  editing: {
    name: 'place',
    write: ({ wants, says }) => ({ label: [{ text: says }], attributes: { wants }, children: null }),
    read: ({ id, label, attributes }) => {
      const wants = WANTS.find((one) => one === attributes['wants']);
      const says = inlineText(label).trim();
      return wants && says !== ''
        ? { type: 'placeholder', id: id(), wants, says }
        : `what is to stand there in square brackets and what it is, as {wants=${WANTS[0]}}; it may be ${WANTS.join(', ')}`;
    },
  },
};
