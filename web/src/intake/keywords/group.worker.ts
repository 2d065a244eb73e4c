import { type Closeness, type Groupable, groupPhrases } from '@grivo/core';

export interface Grouping {
  phrases: Groupable[];
  closeness: Closeness;
  language: string;
}

self.onmessage = ({ data: { phrases, ...how } }: MessageEvent<Grouping>) => {
  self.postMessage(groupPhrases(phrases, how));
};
