import { readChannel } from '../../formats/videos/channel.ts';
import type { Tools } from '../../ports/tools.ts';

export interface FoundChannel {
  address: string;
  name: string;
  videos: number;
}

export type FindChannel = { ok: true; channel: FoundChannel } | { ok: false; reason: string; mend: string };

/**
 * The channel somebody means: by the address of it or of a playlist, by a handle with or without its sign, or by its name,
 * which are looked up at the video host. Spaces, quotes and other stray signs around it are forgiven.
 */
export async function findChannel(
  tools: Pick<Tools, 'network' | 'reader' | 'services' | 'videoHost'>,
  given: string,
  signal: AbortSignal,
): Promise<FindChannel> {
  const text = given
    .normalize('NFKC')
    .replace(/[\u200b-\u200f\u2060\ufeff]/g, '')
    .trim()
    .replace(/^["'“”‘’<(]+|(?<!["'“”‘’>),.;])["'“”‘’>),.;]+$/g, '')
    .trim();
  const address = /^https?:\/\//i.test(text) ? text : /^[\w-]+(?:\.[\w-]+)+\//.test(text) ? `https://${text}` : null;
  // What stands behind a handle is a part of the channel's own pages.
  const handle = /^@[^\s/]+(?=\/)/.exec(text)?.[0] ?? text;
  if (address) return read(tools, address, signal);
  const host = tools.services.standard('video host');
  if (!host)
    return {
      ok: false,
      reason: 'there is no video host to look it up at',
      mend: 'Connect a video host under Settings, or give the address of the channel.',
    };
  const hosted = await tools.videoHost.find(host, handle, signal);
  if (!hosted.ok)
    return {
      ok: false,
      reason: `${host.name}: ${hosted.reason}`,
      mend: 'Try again in a while, or give the address of the channel.',
    };
  const [channel] = hosted.channels;
  if (!channel)
    return {
      ok: false,
      reason: `${host.name} knows no such channel`,
      mend: 'Look at how it is written, or give its address.',
    };
  return read(tools, channel.address, signal);
}

async function read(
  tools: Pick<Tools, 'network' | 'reader'>,
  address: string,
  signal: AbortSignal,
): Promise<FindChannel> {
  const channel = await readChannel(tools, address, signal);
  return channel.ok
    ? { ok: true, channel: { address: channel.address, name: channel.name, videos: channel.videos.length } }
    : {
        ok: false,
        reason: channel.reason,
        mend: 'Look at the address; the page of a channel or a playlist is wanted.',
      };
}
