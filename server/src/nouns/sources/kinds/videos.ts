import type { VideoSettings } from '@grivo/contract';
import { clockOf } from '@grivo/core';
import { type ListedVideo, plainAddress, readChannel } from '../../../formats/videos/channel.ts';
import { readUploaded } from '../../../formats/videos/transcript.ts';
import { whyNot } from '../../../ground/network/network.ts';
import type { LookPorts } from '../../../ports/tools.ts';
import type { Found, Looking, SourceReader } from '../kind.ts';

/** Videos of a channel, and single ones by their addresses; the oldest first. */
export const videos: SourceReader<'videos'> = {
  async look(ports, source, signal): Promise<Looking> {
    const { settings } = source;
    const unreadable = (reason: string, mend: string): Looking => ({
      ok: false,
      failure: { code: 'source-unreadable', source: source.id, reason, mend },
    });
    const listed: (ListedVideo & { channel: string })[] = [];
    if (settings.channel) {
      const channel = await readChannel(ports, settings.channel, signal);
      if (!channel.ok) return unreadable(channel.reason, 'Look for the channel again by its name or handle.');
      listed.push(...channel.videos.map((video) => ({ ...video, channel: channel.name || settings.channelName })));
    }
    const single = [
      ...(await Promise.all(settings.addresses.map((address) => about(ports, address, signal)))),
      ...(await Promise.all(settings.captions.map((one) => uploaded(ports, one)))),
    ];
    if (listed.length === 0 && single.length === 0)
      return unreadable('it names no channel and no video', 'Give a channel, or addresses of videos.');
    listed.sort((a, b) => (a.published ?? '').localeCompare(b.published ?? ''));
    const found = listed.map(
      ({ address, title, published, seconds, channel }): Found => ({
        identity: address,
        subject: title,
        content: JSON.stringify([channel, published, seconds]),
        text: title,
        fields: () => ({ link: address, title, video: { address, title, channel, published, seconds } }),
        publishedDesk: published === null ? null : Date.parse(published),
        leftOut:
          seconds !== null && seconds < settings.shortest
            ? { reason: 'too short', detail: `${clockOf(seconds)}, shorter than ${clockOf(settings.shortest)}` }
            : null,
      }),
    );
    return {
      ok: true,
      // A feed shows the newest only: what is not in it any more may well be there.
      ended: { whole: false, partly: null },
      entries: (async function* () {
        yield [...found, ...single];
      })(),
    };
  },
};

async function uploaded(ports: LookPorts, { file, fileName }: VideoSettings['captions'][number]): Promise<Found> {
  const title =
    fileName
      .replace(/\.\w+$/, '')
      .replace(/[_-]+/g, ' ')
      .trim() || 'Captions';
  const read = await readUploaded(ports, file, title);
  const seconds = read.ok ? Math.ceil(read.transcript.cleaned.spoken.at(-1)?.end ?? 0) : null;
  return {
    identity: `file ${file}`,
    subject: title,
    content: fileName,
    fields: () => ({ captions: file, title, video: { title, channel: '', published: null, seconds } }),
    publishedDesk: null,
    leftOut: read.ok
      ? null
      : { reason: 'unusable', detail: 'reason' in read.failure ? read.failure.reason : read.failure.code },
  };
}

async function about({ network, reader }: LookPorts, given: string, signal: AbortSignal): Promise<Found> {
  const address = plainAddress(given);
  const outcome = await network.call({ method: 'GET', address, timeLimitMs: 20_000, maxBytes: 5_000_000, signal });
  const unusable = (detail: string): Found => ({
    identity: address,
    subject: address,
    content: detail,
    fields: () => ({ link: address }),
    publishedDesk: null,
    leftOut: { reason: 'unusable', detail },
  });
  if (outcome.kind !== 'reply') return unusable(whyNot(outcome));
  if (outcome.reply.status !== 200) return unusable(`it answers ${outcome.reply.status}`);
  const read = await reader.read('video', {
    bytes: outcome.reply.body,
    mime: outcome.reply.headers['content-type'] ?? '',
    address: outcome.reply.address,
  });
  if (!read.ok) return unusable(read.problem);
  const page = read.value;
  if (!page) return unusable('there is no video on that page');
  const { title, channel, published, seconds } = page;
  return {
    identity: address,
    subject: title,
    content: JSON.stringify([channel, published, seconds]),
    fields: () => ({ link: address, title, video: { address, title, channel, published, seconds } }),
    publishedDesk: published === null ? null : Date.parse(published),
    leftOut: null,
  };
}
