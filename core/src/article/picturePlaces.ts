import { wordsOfText } from '../sentence/sentence.ts';
import type { Block } from './block.ts';
import { blockText } from './text.ts';

/** A place in an article where a picture may stand. */
export interface PicturePlace {
  /** The block it stands behind, or in whose stead it stands. */
  block: string;
  instead: boolean;
  /** What stands over it, or what is to be shown; empty above the first heading. */
  heading: string;
  /** What is said there. */
  about: string;
}

interface Section {
  heading: Extract<Block, { type: 'heading' }>;
  /** What follows, up to the next heading of whatever level. */
  blocks: readonly Block[];
}

/** Blocks that are looked at as a picture is: where one stands no picture is needed. */
const SHOWN: ReadonlySet<Block['type']> = new Set(['figure', 'video', 'chart', 'table', 'placeholder']);
/** A section of fewer words is no place for a picture. */
const LEAST_WORDS = 25;

function sectionsOf(body: readonly Block[]): Section[] {
  const starts = body.flatMap((block, at) => (block.type === 'heading' ? [{ heading: block, at }] : []));
  return starts.map(({ heading, at }, n) => ({
    heading,
    blocks: body.slice(at + 1, starts[n + 1]?.at ?? body.length),
  }));
}

/** Behind the first paragraph of a section, so that the heading and what it says stay together. */
function placeIn({ heading, blocks }: Section): PicturePlace {
  const [first] = blocks;
  return {
    block: first?.type === 'paragraph' ? first.id : heading.id,
    instead: false,
    heading: heading.text,
    about: blocks.map(blockText).join(' '),
  };
}

/**
 * Below headings named by their number, in the order they are named. Where a video or a picture stands there already, it
 * stays and the place is taken.
 * @param headings as '2, last'; one the article does not have is passed over
 */
export function placesAtHeadings(body: readonly Block[], headings: string): PicturePlace[] {
  const sections = sectionsOf(body);
  const named = headings.split(',').map((word) => word.trim());
  const wanted = [...new Set(named.map((word) => (word === 'last' ? sections.at(-1) : sections[Number(word) - 1])))];
  return wanted.flatMap((section) => {
    if (!section) return [];
    const taken = section.blocks.slice(0, 2).some(({ type }) => type === 'video' || type === 'figure');
    return taken ? [] : [placeIn(section)];
  });
}

/**
 * Places that are kept for a picture, then the sections that say most and show nothing yet, one picture each; in the order
 * of the article.
 */
export function placesWhereTheyFit(body: readonly Block[], most: number): PicturePlace[] {
  const kept = body.flatMap((block): PicturePlace[] =>
    block.type === 'placeholder' && block.wants === 'picture'
      ? [{ block: block.id, instead: true, heading: block.says, about: '' }]
      : [],
  );
  const open = sectionsOf(body)
    .filter(({ blocks }) => !blocks.some(({ type }) => SHOWN.has(type)))
    .map((section) => ({ place: placeIn(section), words: wordsOfText(section.blocks.map(blockText).join(' ')).length }))
    .filter(({ words }) => words >= LEAST_WORDS)
    .sort((a, b) => b.words - a.words)
    .map(({ place }) => place);
  const order = new Map(body.map(({ id }, at) => [id, at]));
  return [...kept, ...open].slice(0, most).sort((a, b) => order.get(a.block)! - order.get(b.block)!);
}

/** The article with pictures at their places. */
export function withPictures(
  body: readonly Block[],
  pictures: readonly { place: PicturePlace; figure: Block }[],
): Block[] {
  return body.flatMap((block) => {
    const here = pictures.filter(({ place }) => place.block === block.id);
    if (here.length === 0) return [block];
    const figures = here.map(({ figure }) => figure);
    return here.some(({ place }) => place.instead) ? figures : [block, ...figures];
  });
}
