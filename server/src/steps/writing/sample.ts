import type { HouseStyle, StyleSample } from '@grivo/contract';
import {
  articleText,
  type Block,
  comparedWithStyle,
  countWords,
  inHouseWords,
  type Passage,
  passagesOf,
  toldToWriter,
} from '@grivo/core';
import { factPassages } from '../../nouns/styles/meant.ts';
import type { KeptText } from '../../nouns/styles/texts.ts';
import { good, type Result } from '../../ports/outcome/outcome.ts';
import type { ServiceRow } from '../../ports/services/entity.ts';
import type { Tools } from '../../ports/tools.ts';
import { acceptBlocks } from './blocksAccepted.ts';
import { blocksOf } from './compose.ts';
import { fenced } from './fences.ts';
import { houseRules, samplePrompt } from './prompts.ts';
import { BlocksShape } from './shapes.ts';

const WORDS = 90;
const MOST_PASSAGES = 6;

/** Has two paragraphs written in a style, of what one of its texts speaks of; another text each time. */
export async function writeSample(
  tools: Pick<Tools, 'writer' | 'secrets' | 'holder'>,
  service: ServiceRow,
  style: Pick<HouseStyle, 'id' | 'name' | 'version' | 'document'>,
  texts: readonly KeptText[],
  asker: { stepRun: string; draw: number; signal: AbortSignal },
): Promise<Result<Omit<StyleSample, 'version' | 'atDesk'>>> {
  const text = texts[asker.draw % texts.length]!;
  const { language } = text;
  const own: Passage[] = passagesOf(
    { address: text.address, title: text.name, language, paragraphs: text.body.split(/\n+/) },
    text.id,
  );
  const passages = [...own.slice(0, MOST_PASSAGES), ...factPassages(style, language).slice(0, 2)].map((passage, i) => ({
    n: i + 1,
    passage,
  }));
  const numbers = new Set(passages.map(({ n }) => n));
  const reply = await tools.writer.write(
    service,
    {
      ...fenced(tools.secrets, {
        instructions: houseRules(language),
        material: samplePrompt({
          language,
          person: style.document.person ?? 'second person',
          words: WORDS,
          house: toldToWriter(style.document, language),
          passages,
        }),
      }),
      name: 'blocks',
      shape: BlocksShape,
      accept: acceptBlocks(numbers, language),
      maxTokensOut: 800,
    },
    { holder: tools.holder(), ...asker },
  );
  if (!reply.ok) return reply;
  const written = blocksOf(reply.value.value.blocks, 1, passages, numbers).filter(({ type }) => type === 'paragraph');
  const { body, reworded } = inHouseWords(written, style.document, language);
  const { figures } = comparedWithStyle({ title: '', language, body }, style.document);
  return good({
    heading: text.name,
    paragraphs: body.map(lineOf),
    micros: reply.value.micros,
    words: countWords(articleText({ body }), language),
    reworded,
    outside: figures.flatMap(({ name, within }) => (within === false ? [name] : [])),
  });
}

const lineOf = (block: Block): string => articleText({ body: [block] });
