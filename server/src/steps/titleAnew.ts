import {
  type ArticleDocument,
  articleText,
  type HouseStyleDocument,
  type Micros,
  textCost,
  textInHouseWords,
  tokensCeiling,
  toldToWriter,
} from '@grivo/core';
import type { Result } from '../ports/outcome/outcome.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import type { Tools } from '../ports/tools.ts';
import { acceptTitles } from './titlesAccepted.ts';
import { fenced } from './writing/fences.ts';
import { houseRules, titlePrompt } from './writing/prompts.ts';
import { TitlesShape } from './writing/shapes.ts';
import { textsSoFar } from './writing/soFar.ts';

/** Titles that are given to choose from, and the most characters of one. */
const CHOICES = 3;
const LONGEST = 70;
const MOST_TOKENS = 600;
/** What comes of it: three titles, a description and keywords, in tokens. */
const USUAL_TOKENS = 160;

/** Other titles for an article, as somebody wants them. */
export interface TitleRequest {
  instructions: string;
  material: string;
  subject: string;
  language: string;
  style: HouseStyleDocument | null;
}

export function titleRequest(document: ArticleDocument, note: string, style: HouseStyleDocument | null): TitleRequest {
  const { language } = document;
  const subject = document.keyPhrase || document.title;
  return {
    instructions: houseRules(language),
    material: titlePrompt({
      subject,
      most: LONGEST,
      choices: CHOICES,
      instruction: `The article has a title, which stands first in it. The editor wants others: ${note.trim()}`,
      examples: [],
      aim: null,
      house: style ? toldToWriter(style, language) : '',
      text: [document.title, articleText(document)].filter((part) => part !== '').join('\n\n'),
    }),
    subject,
    language,
    style,
  };
}

/** About what it costs at a writer. */
export const titlePrice = ({ price }: Pick<ServiceRow, 'price'>, { instructions, material }: TitleRequest): Micros =>
  textCost(price, { tokensIn: tokensCeiling(instructions + material), tokensOut: USUAL_TOKENS });

/** Has titles written; none is longer than a title may be. */
export async function writeTitles(
  tools: Pick<Tools, 'writer' | 'secrets' | 'holder'>,
  service: ServiceRow,
  { instructions, material, subject, language, style }: TitleRequest,
  asker: { stepRun: string; draw: number; signal: AbortSignal; heard: (titles: string[]) => void },
): Promise<Result<{ titles: string[]; micros: Micros }>> {
  const reply = await tools.writer.write(
    service,
    {
      ...fenced(tools.secrets, { instructions, material }),
      name: 'titles',
      shape: TitlesShape,
      accept: acceptTitles({ most: LONGEST, subject }),
      maxTokensOut: MOST_TOKENS,
    },
    { holder: tools.holder(), ...asker, heard: (soFar) => asker.heard(textsSoFar(soFar, ['titles'])) },
  );
  if (!reply.ok) return reply;
  const { titles } = reply.value.value;
  const said = titles.map((title) => (style ? textInHouseWords(title, style, language) : title));
  return { ok: true, value: { titles: [...new Set(said)], micros: reply.value.micros } };
}
