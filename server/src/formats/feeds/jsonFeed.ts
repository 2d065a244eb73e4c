import { z } from 'zod';
import { plain } from '../documents/plain.ts';
import { resolved } from '../documents/resolved.ts';
import { type Feed, momentOf, titleOf } from './entry.ts';

const loose = z.union([z.string(), z.number()]).transform(String).catch('');
const text = loose.default('');

/** JSON Feed, version 1.1 (jsonfeed.org/version/1.1), items that are none passed over. */
const Item = z.looseObject({
  id: text,
  url: text,
  external_url: text,
  title: text,
  content_html: text,
  content_text: text,
  summary: text,
  date_published: text,
  date_modified: text,
  authors: z
    .array(z.looseObject({ name: text }))
    .catch([])
    .default([]),
  tags: z.array(loose).catch([]).default([]),
  attachments: z
    .array(
      z.looseObject({
        url: text,
        mime_type: text,
        duration_in_seconds: z.number().nullish(),
        size_in_bytes: z.number().nullish(),
      }),
    )
    .catch([])
    .default([]),
});
const Document = z.looseObject({
  version: z.string().regex(/jsonfeed\.org/),
  title: text,
  home_page_url: text,
  feed_url: text,
  language: text,
  hubs: z
    .array(z.looseObject({ type: text, url: text }))
    .catch([])
    .default([]),
  items: z.array(z.unknown()),
});

/** @returns null when the value is no JSON feed */
export function jsonFeed(value: unknown, address: string): Feed | null {
  const read = Document.safeParse(value);
  if (!read.success) return null;
  const feed = read.data;
  return {
    form: 'JSON Feed',
    title: plain(feed.title).slice(0, 200),
    home: resolved(feed.home_page_url, address),
    language: feed.language.slice(0, 2).toLowerCase() || null,
    self: resolved(feed.feed_url, address),
    hub: resolved(feed.hubs.find(({ type }) => type.toLowerCase() === 'websub')?.url, address),
    entries: feed.items.flatMap((given) => {
      const item = Item.safeParse(given).data;
      if (!item) return [];
      const body = plain(item.content_html) || plain(item.content_text) || plain(item.summary);
      const [attachment] = item.attachments;
      const enclosed = resolved(attachment?.url, address);
      return [
        {
          id: item.id || null,
          link: resolved(item.url, address) ?? resolved(item.external_url, address),
          title: titleOf(item.title, body),
          text: body,
          published: momentOf(item.date_published) ?? momentOf(item.date_modified),
          author: item.authors[0]?.name.slice(0, 200) ?? '',
          seconds: attachment?.duration_in_seconds ?? null,
          categories: item.tags.filter((tag) => tag !== '').slice(0, 30),
          enclosure:
            attachment && enclosed !== null
              ? {
                  address: enclosed,
                  mime: attachment.mime_type,
                  seconds: attachment.duration_in_seconds ?? null,
                  bytes: attachment.size_in_bytes ?? null,
                }
              : null,
        },
      ];
    }),
  };
}
