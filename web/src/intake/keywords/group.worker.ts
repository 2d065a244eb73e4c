import { type Closeness, type Groupable, groupPhrases, headOf, type Want, wantOf } from '@grivo/core';

/** A list on its way to the worker: one text and figures, since thousands of objects would be copied one by one. */
export interface Grouping {
  /** Phrases, one a line. */
  phrases: string;
  /** Searches a month of each; NaN is not known. */
  volumes: Float64Array;
  /** What searches give, as numbers of addresses, phrase after phrase; `ends` says where each phrase's end. */
  results: Int32Array;
  ends: Int32Array;
  closeness: Closeness;
  language: string;
}

function unpacked({ phrases, volumes, results, ends }: Grouping): (Groupable & { volume: number | null })[] {
  return phrases.split('\n').map((phrase, i) => ({
    phrase,
    volume: Number.isNaN(volumes[i]!) ? null : volumes[i]!,
    results: Array.from(results.subarray(i === 0 ? 0 : ends[i - 1]!, ends[i]!), String),
  }));
}

/** A group as indexes into the list, the phrase it is called by first, and what it wants. */
export interface Grouped {
  members: number[];
  want: Want;
}

self.onmessage = ({ data }: MessageEvent<Grouping>) => {
  const phrases = unpacked(data);
  const how = { closeness: data.closeness, language: data.language };
  const groups = groupPhrases(phrases, how).map((group): Grouped => {
    const head = headOf(
      group.map((i) => phrases[i]!),
      how.language,
    );
    const members = [group[head]!, ...group.filter((_, i) => i !== head)];
    return { members, want: commonWant(members.map((i) => wantOf(phrases[i]!.phrase, how.language))) };
  });
  self.postMessage(groups);
};

/** What most want; of equals what the first does. */
function commonWant(wants: readonly Want[]): Want {
  const counts = new Map<Want, number>();
  for (const want of wants) counts.set(want, (counts.get(want) ?? 0) + 1);
  return [...counts].reduce((most, one) => (one[1] > most[1] ? one : most))[0];
}
