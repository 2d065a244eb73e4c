import { type Chapter, secondsOf } from '@grivo/core';
import { parseHTML } from 'linkedom';
import { z } from 'zod';
import { readJson } from '../../ground/reading/json.ts';
import { tangled } from '../documents/tangled.ts';

/** Chapters and captions of a video. */
const MOST_PARTS = 500;

/** A captions file a page names. */
export interface CaptionTrack {
  address: string;
  language: string;
  /** As the page calls it. */
  label: string;
}

/** What a page says of the video on it. */
export interface VideoPage {
  address: string;
  title: string;
  description: string;
  channel: string;
  published: string | null;
  seconds: number;
  thumbnail: string | null;
  /** A page that plays it and nothing else, and the film itself, where the page names them. */
  player: string | null;
  film: string | null;
  language: string | null;
  chapters: Chapter[];
  tracks: CaptionTrack[];
}

const one = <T extends z.ZodType>(schema: T) => z.union([schema, z.array(schema).transform((all) => all[0])]);
const Named = z.union([z.string(), z.looseObject({ name: z.string().optional() })]);
/** A video as schema.org describes one (VideoObject, Clip). */
const VideoObject = z.looseObject({
  name: z.string().optional(),
  description: z.string().optional(),
  thumbnailUrl: one(z.string()).optional(),
  embedUrl: one(z.string()).optional().catch(undefined),
  contentUrl: one(z.string()).optional().catch(undefined),
  uploadDate: z.string().optional(),
  duration: z.string().optional(),
  inLanguage: z.string().optional(),
  author: one(Named).optional(),
  creator: one(Named).optional(),
  publisher: one(Named).optional(),
  hasPart: z
    .array(z.looseObject({ name: z.string(), startOffset: z.coerce.number() }).catch({ name: '', startOffset: -1 }))
    .catch([])
    .optional(),
});

/**
 * The video of an HTML page, by the open standards pages describe one with: schema.org in JSON-LD, else Open Graph; the
 * captions by the page's `track` elements. Null when there is no video on it.
 */
export function videoPage(html: string, address: string): VideoPage | null {
  if (tangled(html) !== null) return null;
  const { document } = parseHTML(html);
  const meta = (name: string) =>
    document.querySelector(`meta[property="${name}"], meta[name="${name}"]`)?.getAttribute('content')?.trim() ?? '';
  const described = describedIn(document);
  const player = document.querySelector('video');
  if (!described && !player && !/^video/.test(meta('og:type'))) return null;
  const absolute = (text: string | null | undefined) =>
    text && URL.canParse(text, address) ? new URL(text, address).href : null;
  const nameOf = (named: z.infer<typeof Named> | undefined) =>
    typeof named === 'string' ? named : (named?.name ?? '');
  const title =
    described?.name ??
    (meta('og:title') || document.querySelector('h1')?.textContent?.trim() || document.title || address);
  return {
    address: absolute(document.querySelector('link[rel="canonical"]')?.getAttribute('href')) ?? address,
    title: title.replace(/\s+/g, ' ').trim().slice(0, 300),
    description: (described?.description ?? meta('og:description')).trim().slice(0, 5_000),
    channel: nameOf(described?.author ?? described?.creator ?? described?.publisher).slice(0, 200),
    published: described?.uploadDate && !Number.isNaN(Date.parse(described.uploadDate)) ? described.uploadDate : null,
    seconds: durationOf(described?.duration) ?? secondsOf(meta('og:video:duration')) ?? 0,
    thumbnail: absolute(described?.thumbnailUrl ?? player?.getAttribute('poster') ?? meta('og:image')),
    player: onTheWeb(absolute(described?.embedUrl)),
    film: onTheWeb(
      absolute(
        described?.contentUrl ?? player?.getAttribute('src') ?? player?.querySelector('source')?.getAttribute('src'),
      ),
    ),
    language: languageCode(described?.inLanguage ?? document.documentElement?.getAttribute('lang')),
    chapters: (described?.hasPart ?? [])
      .filter(({ startOffset, name }) => startOffset >= 0 && name.trim() !== '')
      .map(({ name, startOffset }) => ({ title: name.trim().slice(0, 200), start: startOffset }))
      .sort((a, b) => a.start - b.start)
      .slice(0, MOST_PARTS),
    tracks: [...document.querySelectorAll('track')].slice(0, MOST_PARTS).flatMap((track): CaptionTrack[] => {
      const src = absolute(track.getAttribute('src'));
      const kind = track.getAttribute('kind') ?? 'subtitles';
      if (!src || (kind !== 'captions' && kind !== 'subtitles')) return [];
      return [
        {
          address: src,
          language: languageCode(track.getAttribute('srclang')) ?? '',
          label: track.getAttribute('label') ?? '',
        },
      ];
    }),
  };
}

function onTheWeb(address: string | null): string | null {
  return address !== null && /^https?:/.test(address) ? address : null;
}

function describedIn(document: ReturnType<typeof parseHTML>['document']): z.infer<typeof VideoObject> | null {
  for (const script of document.querySelectorAll('script[type="application/ld+json"]')) {
    const described = readJson(script.textContent ?? '');
    const found = described.ok ? videoIn(described.value, 0) : null;
    const read = found === null ? null : VideoObject.safeParse(found);
    if (read?.success) return read.data;
  }
  return null;
}

function videoIn(value: unknown, depth: number): object | null {
  if (typeof value !== 'object' || value === null || depth > 4) return null;
  const type = (value as { '@type'?: unknown })['@type'];
  if (type === 'VideoObject' || (Array.isArray(type) && type.includes('VideoObject'))) return value;
  for (const part of Object.values(value)) {
    const found = videoIn(part, depth + 1);
    if (found) return found;
  }
  return null;
}

/** Seconds of an ISO 8601 duration as PT14M32S. */
export function durationOf(text: string | undefined): number | null {
  const match = /^P(?:(\d+)D)?T?(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?$/.exec(text ?? '');
  if (!match) return null;
  const [, d, h, m, s] = match;
  return Number(d ?? 0) * 86_400 + Number(h ?? 0) * 3_600 + Number(m ?? 0) * 60 + Number(s ?? 0);
}

function languageCode(text: string | null | undefined): string | null {
  const code = text?.slice(0, 2).toLowerCase() ?? '';
  return /^[a-z]{2}$/.test(code) ? code : null;
}
