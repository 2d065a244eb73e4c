import type { Element, ElementContent, Root, RootContent } from 'hast';
import { toHtml } from 'hast-util-to-html';
import type { ArticleDocument, Block, Inline, LinkTarget, Video } from './block.ts';
import { makeAnchors } from './slug.ts';

/** How the derived forms find what lies outside the document. */
export interface Resolve {
  /** The public address of a stored file. */
  file: (digest: string) => string;
  /** The address of one of our own articles, or null while it has none: then the words stand without a link. */
  article: (id: string) => string | null;
}

function el(tagName: string, properties: Element['properties'], ...children: ElementContent[]): Element {
  return { type: 'element', tagName, properties, children };
}

function text(value: string): ElementContent {
  return { type: 'text', value };
}

/** The address a link gets, or null when it must fall away. Only addresses of the web are let through. */
export function linkAddress(link: LinkTarget, resolve: Resolve): string | null {
  const address = link.to === 'article' ? resolve.article(link.article) : link.address;
  return address !== null && /^(?:https?:\/\/|\/(?!\/)|mailto:)/i.test(address) ? address : null;
}

function inline(content: readonly Inline[], resolve: Resolve): ElementContent[] {
  return content.map((part) => {
    let node: ElementContent = text(part.text);
    for (const mark of part.marks ?? [])
      node = el(mark === 'strong' ? 'strong' : mark === 'emphasis' ? 'em' : 'code', {}, node);
    const href = part.link ? linkAddress(part.link, resolve) : null;
    if (part.link && href !== null) {
      const sponsored = part.link.to === 'address' && part.link.sponsored;
      node = el('a', sponsored ? { href, rel: ['sponsored', 'nofollow'] } : { href }, node);
    }
    return node;
  });
}

function tableOf(head: readonly string[], rows: readonly string[][], caption: string | undefined): Element {
  const row = (tag: string, cells: readonly string[]) =>
    el('tr', {}, ...cells.map((cell) => el(tag, tag === 'th' ? { scope: 'col' } : {}, text(cell))));
  return el(
    'table',
    {},
    ...(caption ? [el('caption', {}, text(caption))] : []),
    el('thead', {}, row('th', head)),
    el('tbody', {}, ...rows.map((cells) => row('td', cells))),
  );
}

function contentsOf(body: readonly Block[]): Element {
  const anchor = makeAnchors();
  const entries = body.filter((block) => block.type === 'heading').map((block) => ({ block, id: anchor(block.text) }));
  const top = entries.filter(({ block }) => block.level === 2);
  return el(
    'nav',
    { ariaLabel: 'Contents' },
    el('ol', {}, ...top.map(({ block, id }) => el('li', {}, el('a', { href: `#${id}` }, text(block.text))))),
  );
}

/** The player of a video where its page names one or the film itself, else its still; the link always stands below. */
function videoOf({ address, title, player, film, still }: Video): Element {
  const link = (...children: ElementContent[]) => el('a', { href: address }, ...children);
  const picture = still ? el('img', { src: still, alt: title }) : null;
  const shown = player
    ? el('iframe', { src: player, title, width: 560, height: 315, loading: 'lazy', allowFullScreen: true })
    : film
      ? el('video', { src: film, controls: true, preload: 'none', ...(still ? { poster: still } : {}) })
      : picture && link(picture);
  if (!shown) return el('p', {}, link(text(title)));
  return el('figure', { className: ['video'] }, shown, el('figcaption', {}, link(text(title))));
}

function blockNode(
  block: Block,
  body: readonly Block[],
  anchor: (heading: string) => string,
  resolve: Resolve,
): RootContent {
  switch (block.type) {
    case 'heading':
      return el(`h${block.level}`, { id: anchor(block.text) }, text(block.text));
    case 'paragraph':
      return el('p', {}, ...inline(block.content, resolve));
    case 'standing text':
      return el('p', { className: ['standing'] }, ...inline(block.content, resolve));
    case 'list':
      return el(block.ordered ? 'ol' : 'ul', {}, ...block.items.map((item) => el('li', {}, ...inline(item, resolve))));
    case 'table':
      return tableOf(block.head, block.rows, block.caption);
    case 'figure': {
      const note = [block.caption, block.credit].filter(Boolean).join(' · ');
      const image = el('img', {
        src: resolve.file(block.file),
        alt: block.alternative,
        width: block.width,
        height: block.height,
      });
      return el('figure', {}, image, ...(note ? [el('figcaption', {}, text(note))] : []));
    }
    case 'quote': {
      const footer = block.attribution ? [el('footer', {}, el('cite', {}, text(block.attribution)))] : [];
      return el('blockquote', {}, el('p', {}, text(block.text)), ...footer);
    }
    case 'video':
      return videoOf(block);
    case 'chart':
      return el(
        'figure',
        {},
        tableOf(
          ['', ...block.labels],
          block.series.map((s) => [s.name, ...s.values.map(String)]),
          undefined,
        ),
        el('figcaption', {}, text(block.alternative)),
      );
    case 'key points':
      return el('ul', { className: ['key-points'] }, ...block.items.map((item) => el('li', {}, text(item))));
    case 'question and answer':
      return el(
        'section',
        { className: ['question'] },
        el('p', {}, el('strong', {}, text(block.question))),
        el('p', {}, ...inline(block.answer, resolve)),
      );
    case 'call to action':
      return el(
        'p',
        { className: ['call'] },
        text(`${block.text} `),
        el('a', { href: block.address }, text(block.button)),
      );
    case "owner's markup":
      return { type: 'raw', value: block.markup } as unknown as RootContent;
    case 'contents':
      return contentsOf(body);
  }
}

/**
 * Every block of the body beside the HTML it becomes. Whatever shows an article is made of these: the page in the
 * application, what is published, what is saved.
 */
export function articleNodes(
  { body }: Pick<ArticleDocument, 'body'>,
  resolve: Resolve,
): { block: Block; node: RootContent }[] {
  const anchor = makeAnchors();
  return body.map((block) => ({ block, node: blockNode(block, body, anchor, resolve) }));
}

/** The body as an HTML fragment. The title is not part of it. Everything but the owner's own markup is escaped. */
export function articleHtml(article: Pick<ArticleDocument, 'body'>, resolve: Resolve): string {
  const children = articleNodes(article, resolve).flatMap(({ node }, i): RootContent[] =>
    i === 0 ? [node] : [{ type: 'text', value: '\n' }, node],
  );
  return toHtml({ type: 'root', children } satisfies Root, { allowDangerousHtml: true });
}
