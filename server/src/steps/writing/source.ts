import type { Block, Part, Sayings } from '@grivo/core';
import { z } from 'zod';

/** What an article is made of when it is one thing: a video, a page, a product. */
const SourceField = z.object({
  address: z.string(),
  title: z.string(),
  by: z.string(),
  video: z.boolean().optional(),
  still: z.string().optional(),
  player: z.string().optional(),
  film: z.string().optional(),
  /** Somebody pays for those who follow the link. */
  sponsored: z.boolean().optional(),
});
type SourceField = z.infer<typeof SourceField>;
/** One of several an article was gathered from, with the passages that are of it. */
const Gathered = z.array(SourceField.extend({ passages: z.array(z.string()) }));

const onTheWeb = ({ address }: SourceField): boolean => /^https?:/.test(address);

/**
 * The source shown and credited, where those parts are asked for: the video after the opening, the credit at the end. Of
 * an article gathered from several, each is credited below the section that rests on it.
 * @param given the fields of the brief
 */
export function withSource(
  body: readonly Block[],
  parts: readonly Part[],
  given: { source?: unknown; sources?: unknown },
  says: Sayings,
): Block[] {
  const gathered = (Gathered.safeParse(given.sources).data ?? []).filter(onTheWeb);
  if (gathered.length > 0) return parts.includes('source credit') ? withEach(body, gathered, says) : [...body];
  const read = SourceField.safeParse(given.source).data;
  if (!read || !onTheWeb(read)) return [...body];
  const out = [...body];
  if (parts.includes('source embed') && read.video) {
    const at = out.findIndex((block) => block.type === 'heading');
    const { address, title, player, film, still } = read;
    out.splice(at < 0 ? out.length : at, 0, {
      type: 'video',
      id: 'v1',
      address,
      title,
      ...(player ? { player } : {}),
      ...(film ? { film } : {}),
      ...(still ? { still } : {}),
    });
  }
  if (parts.includes('source credit')) out.push(creditOf(read, 'credit', says.madeFrom, says));
  return out;
}

function creditOf({ address, title, by, sponsored }: SourceField, id: string, from: string, says: Sayings): Block {
  return {
    type: 'standing text',
    id,
    content: [
      { text: `${from} ` },
      { text: title, link: { to: 'address', address, ...(sponsored ? { sponsored } : {}) } },
      { text: by === '' ? '.' : `, ${says.by} ${by}.` },
    ],
  };
}

/** Sections in turn, each with the credit of the source most of its evidence is from; what is credited nowhere, at the end. */
function withEach(body: readonly Block[], sources: z.infer<typeof Gathered>, says: Sayings): Block[] {
  const out: Block[] = [];
  const left = new Set(sources.keys());
  let rests: string[] = [];
  const credit = () => {
    const counts = sources.map(({ passages }) => rests.filter((id) => passages.includes(id)).length);
    const most = Math.max(0, ...counts);
    const at = counts.indexOf(most);
    rests = [];
    if (most === 0 || !left.delete(at)) return;
    out.push(creditOf(sources[at]!, `credit${at + 1}`, says.readWhole, says));
  };
  let opened = false;
  for (const block of body) {
    if (block.type === 'heading') {
      if (opened) credit();
      rests = [];
      opened = true;
    }
    if ('evidence' in block && block.evidence) rests.push(...block.evidence.map(({ passage }) => passage));
    out.push(block);
  }
  if (opened) credit();
  for (const at of left) out.push(creditOf(sources[at]!, `credit${at + 1}`, says.madeFrom, says));
  return out;
}

/** The page an article is made from; null where that is none of the web, or several. */
export function sourceOf({
  source,
}: Readonly<Record<string, unknown>>): Pick<SourceField, 'address' | 'title' | 'by' | 'film'> | null {
  const read = SourceField.safeParse(source).data;
  return read && onTheWeb(read) ? read : null;
}

/** The picture a source has of itself: the still of its video, or what its item says stands at an address. */
export function stillOf(given: Readonly<Record<string, unknown>>): {
  picture: string;
  address: string;
  title: string;
  by: string;
} | null {
  const source = SourceField.safeParse(given['source']).data;
  const item = given['picture'];
  const picture = source?.still ?? (typeof item === 'string' && /^https?:/i.test(item) ? item : null);
  if (picture === null) return null;
  const address = source && onTheWeb(source) ? source.address : '';
  const subject = given['subject'];
  return {
    picture,
    address,
    title: source?.title ?? (typeof subject === 'string' ? subject : ''),
    by: source?.by ?? '',
  };
}
