import { ProposalPrice, ProposeTexts, TextsProposed } from '@grivo/contract';
import { pressedWords } from '@grivo/core';
import { namer } from '../nouns/incidents/words.ts';
import { proposalPrice, proposeTexts } from '../steps/writing/proposed.ts';
import { problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { standardWriter } from './writer.ts';

const LONGEST_MS = 120_000;

/** Texts a writer proposes, for lists one of which is chosen from: nothing is kept until somebody keeps it. */
export function proposedRoutes({ ground, tools }: Product): Route[] {
  const writer = () => standardWriter(tools);
  return [
    route({
      method: 'post',
      path: '/texts/proposed/price',
      says: 'About what it costs to have texts proposed',
      role: 'editor',
      body: ProposeTexts,
      answer: ProposalPrice,
      status: 200,
      secret: 'again',
      handle: async ({ body }) => ({ micros: proposalPrice(writer(), body) }),
    }),
    route({
      method: 'post',
      path: '/texts/proposed',
      says: 'Has a writer propose texts that say the same as some there are; they are kept nowhere',
      role: 'editor',
      body: ProposeTexts,
      answer: TextsProposed,
      status: 200,
      handle: async ({ body }) => {
        const written = await proposeTexts(tools, writer(), body, {
          stepRun: ground.ids(),
          draw: body.again,
          signal: AbortSignal.timeout(LONGEST_MS),
        });
        if (!written.ok) {
          const { sentence, mend } = pressedWords(written.failure, await namer(ground.db));
          throw problem(502, 'Not proposed', sentence, mend);
        }
        return written.value;
      },
    }),
  ];
}
