import type { Events } from './machine.ts';

/** What is known of an article on a blog. */
export type PublicationState = 'planned' | 'creating' | 'draft' | 'live' | 'withdrawn';

/** Everything that happens to a publication. Nothing else in the product changes its state. */
export const PUBLICATION = {
  /** What is to go out is settled, and the blog may be told at any moment. */
  begin: { from: ['planned', 'creating', 'withdrawn'], to: 'creating' },
  draft: { from: ['planned', 'creating', 'draft'], to: 'draft' },
  live: { from: ['creating', 'draft', 'live'], to: 'live' },
  withdraw: { from: ['draft', 'live', 'withdrawn'], to: 'withdrawn' },
} as const satisfies Events<PublicationState, string>;
export type PublicationEvent = keyof typeof PUBLICATION;

/** What may be done with an article on a blog, each time as an edition of its own. */
export type Act = 'publish' | 'update' | 'withdraw';

/** The states in which an act may begin. */
export const MAY_BEGIN: Readonly<Record<Act, readonly PublicationState[]>> = {
  publish: ['planned', 'creating', 'draft', 'withdrawn'],
  update: ['draft', 'live'],
  withdraw: ['draft', 'live'],
};
