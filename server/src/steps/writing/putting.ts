import {
  type ArticleDocument,
  type Degree,
  type HouseStyleDocument,
  inHouseWords,
  languageName,
  type Micros,
  putProblem,
  puttingOf,
  type Replaced,
  textCost,
  tokensCeiling,
  toldToWriter,
  type Unit,
} from '@grivo/core';
import type { z } from 'zod';
import type { WritingRequest } from '../../ports/adapters/writer.ts';
import type { Result } from '../../ports/outcome/outcome.ts';
import type { ServiceRow } from '../../ports/services/entity.ts';
import type { Tools } from '../../ports/tools.ts';
import { fenced } from './fences.ts';
import { portions } from './portions.ts';
import { putPrompt, putRules } from './promptsOfTexts.ts';
import { TranslationShape } from './shapes.ts';

/** How a text is put in other words. */
export interface Putting {
  degree: Degree;
  /** Words that stay as they are. */
  keep: readonly string[];
  instruction: string;
  /** Of the house it is put for; null for none. */
  style: HouseStyleDocument | null;
}

type Texts = z.infer<typeof TranslationShape>;

/** What is asked for so many texts; one that loses a figure, a link or a word that stays is a fault of the reply. */
export function putRequest(
  language: string,
  units: readonly Unit[],
  { degree, keep, instruction, style }: Putting,
): WritingRequest<Texts> {
  return {
    instructions: putRules(languageName(language)),
    material: putPrompt({
      language: languageName(language),
      degree,
      keep,
      instruction,
      house: style ? toldToWriter(style, language) : '',
      units,
    }),
    name: 'put',
    shape: TranslationShape,
    accept: (value, last) => {
      const given = new Map(value.texts.map(({ n, text }) => [n, text]));
      const wrong = units.flatMap(({ n, text }) => putProblem(text, given.get(n) ?? '', keep) ?? []);
      return wrong.length === 0 || last ? { ok: true, value } : { ok: false, problem: wrong.slice(0, 6).join('; ') };
    },
    maxTokensOut: 4_000,
  };
}

/** Those texts of a reply that say what they said before. */
export function wellPut(units: readonly Unit[], { texts }: Texts, keep: readonly string[]): [number, string][] {
  const given = new Map(texts.map(({ n, text }) => [n, text]));
  return units.flatMap(({ n, text }): [number, string][] => {
    const said = given.get(n);
    return said !== undefined && putProblem(text, said, keep) === null ? [[n, said]] : [];
  });
}

export interface Put {
  body: ArticleDocument['body'];
  replaced: Replaced[] | undefined;
  /** How many texts are as they were. */
  left: number;
  /** Of how many. */
  of: number;
}

/** An article with what was put otherwise, in the words of its house. */
export function withPut(
  document: ArticleDocument,
  texts: ReadonlyMap<number, string>,
  { style }: Pick<Putting, 'style'>,
  only?: ReadonlySet<string>,
): Put {
  const { units, put } = puttingOf(document, only);
  const body = put(texts);
  const housed = style ? inHouseWords(body, style, document.language) : null;
  return {
    body: housed?.body ?? body,
    replaced: housed && housed.replaced.length > 0 ? housed.replaced : undefined,
    left: units.filter(({ n, text }) => (texts.get(n) ?? text) === text).length,
    of: units.length,
  };
}

/** About what it costs at a writer to put an article in other words: as much comes back as is sent. */
export function putPrice(service: Pick<ServiceRow, 'price'>, document: ArticleDocument, how: Putting): Micros {
  return portions(puttingOf(document).units).reduce((sum, units) => {
    const { instructions, material } = putRequest(document.language, units, how);
    const tokensOut = tokensCeiling(units.map(({ text }) => text).join('\n'));
    return sum + textCost(service.price, { tokensIn: tokensCeiling(instructions + material), tokensOut });
  }, 0);
}

/** Puts an article in other words as a person asked for it; it stays as it is until that is kept. */
export async function putArticle(
  tools: Pick<Tools, 'writer' | 'secrets' | 'holder'>,
  service: ServiceRow,
  document: ArticleDocument,
  how: Putting,
  asker: { stepRun: string; draw: number; signal: AbortSignal },
): Promise<Result<Put>> {
  const texts = new Map<number, string>();
  for (const units of portions(puttingOf(document).units)) {
    const request = putRequest(document.language, units, how);
    const reply = await tools.writer.write(
      service,
      { ...request, ...fenced(tools.secrets, request) },
      { holder: tools.holder(), ...asker },
    );
    if (!reply.ok) return reply;
    for (const [n, text] of wellPut(units, reply.value.value, how.keep)) texts.set(n, text);
  }
  return { ok: true, value: withPut(document, texts, how) };
}
