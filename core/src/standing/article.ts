import type { BriefStanding } from './brief.ts';
import type { PublicationState } from './publication.ts';

/** What an article is to people: made of its brief and its publications, kept by nobody. */
export type ArticleStanding = 'in work' | 'held' | 'stopped' | 'ready' | 'draft' | 'out' | 'withdrawn' | 'set aside';

/** What is known of an article itself. */
export interface ArticleFacts {
  /** What it is on the blog it went furthest on; null before it is on any. */
  outAs: Extract<PublicationState, 'draft' | 'live' | 'withdrawn'> | null;
  /** It was ended on purpose. */
  aside: boolean;
  /** It is finished and has a slot to wait for. */
  slot: boolean;
}

/** What it is by itself, whatever its brief does. */
export function ownStanding({ outAs, aside, slot }: ArticleFacts): Exclude<ArticleStanding, 'held' | 'stopped'> {
  if (outAs === 'live') return 'out';
  if (outAs !== null) return outAs;
  if (aside) return 'set aside';
  return slot ? 'ready' : 'in work';
}

/** Where an article stands: what it is by itself, or why its brief keeps it. */
export function articleStanding(facts: ArticleFacts, brief: BriefStanding): ArticleStanding {
  const own = ownStanding(facts);
  return own === 'in work' && (brief === 'held' || brief === 'stopped') ? brief : own;
}
