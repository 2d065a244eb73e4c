import { languageName } from '@grivo/core';
import type { z } from 'zod';
import { isInOther } from '../../formats/language/recognise.ts';
import { type Accepted, named } from '../../ports/adapters/writerReply.ts';
import type { BlocksShape } from './shapes.ts';

type Blocks = z.infer<typeof BlocksShape>;
type WrittenBlock = Blocks['blocks'][number];

/** Marks of Markdown that a text without any should not have. */
const MARKS = /\*\*|__|`|^[ \t]{0,8}(?:#{1,6}|[-*+]|\d{1,3}[.)])\s|\[[^\][\n]{1,200}\]\([^()\s]{1,500}\)/m;
/** Numbers of passages that were left in the text. */
const NUMBERS =
  /\s?(?:\[\d{1,3}(?:\s?[,;–-]\s?\d{1,3})*\]|\((?:passages?|sources?|passagen?|quellen?) \d{1,3}(?:, ?\d{1,3})*\))/gi;

/** What is wrong with a block, each fault in some words. */
function faultsOf(block: WrittenBlock, n: number, given: ReadonlySet<number>): string[] {
  const text = [block.text, ...block.items].join('\n');
  const faults: string[] = [];
  const unknown = block.passages.filter((passage) => !given.has(passage));
  if (unknown.length > 0) faults.push(`there is no passage ${unknown.join(', ')}`);
  if (MARKS.test(text)) faults.push('its text has marks of Markdown');
  if (text.search(NUMBERS) >= 0) faults.push('the number of a passage stands in its text');
  if (text.trim() === '') faults.push('it is empty');
  return faults.map((fault) => `block ${n}: ${fault}`);
}

/** A text without the marks and numbers that do not belong in it. */
function cleaned(text: string): string {
  return text
    .replace(NUMBERS, '')
    .replace(/\[([^\][\n]{1,200})\]\([^()\s]{1,500}\)/g, '$1')
    .replace(/\*\*|__|`/g, '')
    .replace(/^[ \t]{0,8}(?:#{1,6}|[-*+]|\d{1,3}[.)])[ \t]{1,8}/gm, '')
    .trim();
}

/**
 * Takes blocks as they are asked for: resting on passages that were given, in plain text, in the language asked for. What
 * is wrong is named, all of it; the last time marks and numbers are taken out, passages that are not there are left out,
 * and blocks with nothing in them go.
 * @param given numbers of the passages
 */
export function acceptBlocks(given: ReadonlySet<number>, language: string) {
  return ({ blocks }: Blocks, last: boolean): Accepted<Blocks> => {
    const written = isInOther(blocks.flatMap(({ text, items }) => [text, ...items]).join('\n'), language);
    const faults = blocks.flatMap((block, i) => faultsOf(block, i + 1, given));
    if (written !== null)
      return {
        ok: false,
        problem: named([`it is written in ${languageName(written)}, not in ${languageName(language)}`, ...faults]),
      };
    if (faults.length === 0) return { ok: true, value: { blocks } };
    if (!last) return { ok: false, problem: named(faults) };
    const kept = blocks
      .map((block) => ({
        ...block,
        text: cleaned(block.text),
        items: block.items.map(cleaned).filter((item) => item !== ''),
        passages: block.passages.filter((passage) => given.has(passage)),
      }))
      .filter(({ text, items }) => text !== '' || items.length > 0);
    return kept.length > 0 ? { ok: true, value: { blocks: kept } } : { ok: false, problem: named(faults) };
  };
}
