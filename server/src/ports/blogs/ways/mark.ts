import type { Post } from '../blog.ts';

/** Whether a key stands in a text or an address, and not as a part of something longer. */
export function holds(text: string, key: string): boolean {
  for (let at = text.indexOf(key); at >= 0; at = text.indexOf(key, at + 1))
    if (!/[a-z0-9]/i.test(text[at - 1] ?? '') && !/[a-z0-9]/i.test(text[at + key.length] ?? '')) return true;
  return false;
}

/** Whether a key stands in the path of an address. */
export function addressHolds(address: string, key: string): boolean {
  return URL.canParse(address) && holds(new URL(address).pathname, key);
}

const MARK = /\n?<!-- post [a-z0-9]+ -->\s*$/;

/** The text of a post that ends in its key, unseen by readers: for blogs that choose the address themselves. */
export const marked = (post: Pick<Post, 'html' | 'key'>): string => `${post.html}\n<!-- post ${post.key} -->`;

/** The text without the key. */
export const unmarked = (html: string): string => html.replace(MARK, '');

/** The text with the lead picture at its head: for blogs whose posts have no place of their own for it. */
export function pictured({ html, photo }: Pick<Post, 'html' | 'photo'>): string {
  if (!photo) return html;
  const escaped = (text: string) =>
    text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
  return `<figure class="lead"><img src="${escaped(photo.address)}" alt="${escaped(photo.alternative)}"></figure>\n${html}`;
}
