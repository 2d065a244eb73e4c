import type { BlockOf } from '@grivo/core';
import type { VideoPage } from './page.ts';

/** A video as a block of an article. */
export function videoBlock(
  id: string,
  address: string,
  { title, player, film, thumbnail }: VideoPage,
): BlockOf<'video'> {
  return {
    type: 'video',
    id,
    address,
    title,
    ...(player ? { player } : {}),
    ...(film ? { film } : {}),
    ...(thumbnail ? { still: thumbnail } : {}),
  };
}
