import type { GivenFile } from '@grivo/contract';
import { clockOf } from '@grivo/core';
import { getFeed } from '../../../formats/feeds/find.ts';
import { aboutSound } from '../../../formats/media/aboutSound.ts';
import { fileAbout, fileHead } from '../../../ground/files/repository.ts';
import type { LookPorts } from '../../../ports/tools.ts';
import type { Found, SourceReader } from '../kind.ts';

/** Episodes of a podcast that are listed, the newest. */
const MOST_EPISODES = 5_000;

/** Recordings: those uploaded or spoken, and the episodes of a podcast; what is said in each is heard when it is taken. */
export const recordings: SourceReader<'recordings'> = {
  async look(ports, source, signal) {
    const { files, podcast, podcastName, longestMinutes } = source.settings;
    const found = await Promise.all(files.map((one) => uploaded(ports, one)));
    if (podcast !== null) {
      const got = await getFeed(ports, podcast, signal);
      if (!got.ok)
        return {
          ok: false,
          failure: {
            code: 'source-unreadable',
            source: source.id,
            reason: `the podcast cannot be read: ${got.reason}`,
            mend: 'Give the address of its feed.',
          },
        };
      const name = podcastName || got.feed.title;
      found.push(
        ...got.feed.entries
          .slice(0, MOST_EPISODES)
          .map((entry) => episode(entry, name, longestMinutes))
          .reverse(),
      );
    }
    if (podcast === null && files.length === 0)
      return {
        ok: false,
        failure: {
          code: 'source-unreadable',
          source: source.id,
          reason: 'it holds no recording',
          mend: 'Upload one, speak one, or give the feed of a podcast.',
        },
      };
    return {
      ok: true,
      ended: { whole: false, partly: null },
      entries: (async function* () {
        yield found;
      })(),
    };
  },
};

async function uploaded({ ground }: LookPorts, { file, fileName }: GivenFile): Promise<Found> {
  const title =
    fileName
      .replace(/\.\w+$/, '')
      .replace(/[_-]+/g, ' ')
      .trim() || 'A recording';
  const about = await fileAbout(ground.db, file);
  const sound = about ? aboutSound(await fileHead(ground.db, file), about.bytes) : null;
  return {
    identity: `file ${file}`,
    subject: title,
    content: fileName,
    fields: () => ({
      title,
      about: [sound?.form ?? '', sound?.seconds == null ? '' : clockOf(sound.seconds)]
        .filter((part) => part !== '')
        .join(', '),
      recording: { file, fileName, by: '', seconds: sound?.seconds ?? null, title },
    }),
    publishedDesk: null,
    leftOut: sound
      ? null
      : { reason: 'unusable', detail: about ? 'it is not a recording of a kind that is read' : 'the file is gone' },
  };
}

type Entry = Extract<Awaited<ReturnType<typeof getFeed>>, { ok: true }>['feed']['entries'][number];

/** An entry of a podcast as an item; what is no recording, or longer than is taken, is left out with the reason. */
function episode(entry: Entry, by: string, longestMinutes: number): Found {
  const { enclosure } = entry;
  const seconds = enclosure?.seconds ?? null;
  const sounds = enclosure !== null && !/^(?:image|text)\//.test(enclosure.mime);
  return {
    identity: entry.id ?? enclosure?.address ?? entry.title,
    subject: entry.title,
    content: '',
    text: `${entry.title} ${entry.text}`,
    fields: () => ({
      ...(entry.link === null ? {} : { link: entry.link }),
      title: entry.title,
      about: [by, seconds === null ? '' : clockOf(seconds)].filter((part) => part !== '').join(', '),
      ...(enclosure === null ? {} : { recording: { address: enclosure.address, by, seconds, title: entry.title } }),
    }),
    publishedDesk: entry.published === null ? null : Date.parse(entry.published),
    leftOut: !sounds
      ? { reason: 'unusable', detail: 'it has no recording' }
      : seconds !== null && seconds > longestMinutes * 60
        ? { reason: 'filtered', detail: `${clockOf(seconds)}, longer than ${longestMinutes} minutes` }
        : null,
  };
}
