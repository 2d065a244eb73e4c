import type { Block, Part } from '@grivo/core';
import { z } from 'zod';

/** What an article is made of when it is one thing: a video, a page. */
const SourceField = z.object({
  address: z.string(),
  title: z.string(),
  by: z.string(),
  video: z.boolean().optional(),
});

const CREDIT: Record<string, { from: string; by: string }> = {
  en: { from: 'Made from', by: 'by' },
  de: { from: 'Nach', by: 'von' },
};

/** The source shown and credited, where those parts are asked for: the video after the opening, the credit at the end. */
export function withSource(body: readonly Block[], parts: readonly Part[], source: unknown, language: string): Block[] {
  const read = SourceField.safeParse(source).data;
  if (!read || !/^https?:/.test(read.address)) return [...body];
  const out = [...body];
  if (parts.includes('source embed') && read.video) {
    const at = out.findIndex((block) => block.type === 'heading');
    out.splice(at < 0 ? out.length : at, 0, { type: 'video', id: 'v1', address: read.address, title: read.title });
  }
  if (parts.includes('source credit')) {
    const words = CREDIT[language] ?? CREDIT['en']!;
    out.push({
      type: 'standing text',
      id: 'credit',
      content: [
        { text: `${words.from} ` },
        { text: read.title, link: { to: 'address', address: read.address } },
        { text: read.by === '' ? '.' : `, ${words.by} ${read.by}.` },
      ],
    });
  }
  return out;
}
