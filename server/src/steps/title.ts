import { articleText, isOfHouse, type StepOf, slugOf, textInHouseWords, tidy, toldToWriter } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { aimOf } from './aim.ts';
import { askWriter, instructed, phraseOf, subjectOf, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';
import { acceptTitles } from './titlesAccepted.ts';
import { houseRules, titlePrompt } from './writing/prompts.ts';
import { TitlesShape } from './writing/shapes.ts';

/** Titles the article: choices within the length, slug, description, keywords, hashtags. The first choice stands until a person takes another. */
export function performTitle(tools: Tools): Performer<StepOf<'title'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const { document } = article;
    const style = await styleFor(tools, context, step);
    const said = (text: string) => (style ? textInHouseWords(text, style.document, document.language) : text);
    const asked = await askWriter(tools, context, {
      instructions: houseRules(document.language),
      material: titlePrompt({
        subject: subjectOf(context),
        most: step.most,
        choices: step.choices,
        instruction: withNote(own.texts.instruction, context),
        examples: step.examples,
        aim: aimOf(context),
        house: style ? toldToWriter(style.document, document.language) : '',
        // What stands at the end of every article says nothing of this one.
        text: articleText({
          body: document.body.filter((block) => block.type !== 'standing text' && !isOfHouse(block)),
        }),
      }),
      name: 'titles',
      shape: TitlesShape,
      accept: acceptTitles({ most: step.most, subject: phraseOf(context) }),
      maxTokensOut: 600,
    });
    if (!asked.ok) return asked.result;
    const { keywords, hashtags } = asked.value;
    const titles = asked.value.titles.map(said);
    const description = said(asked.value.description);
    const stays = titleThatStays(context.brief.fields);
    const choices = stays === null ? titles.slice(0, step.choices) : [stays];
    const title = choices[0]!;
    const { article: titled } = tidy({
      ...document,
      title,
      titleChoices: choices,
      slug: slugOf(title),
      description: cut(description.replace(/\s+/g, ' ').trim(), 160),
      keywords: unique(keywords).slice(0, 8),
      hashtags: unique(hashtags.map((tag) => tag.replace(/^#+|\s+/g, ''))).slice(0, 5),
    });
    const { article: changed, writes } = await article.change(titled);
    return {
      kind: 'done',
      fields: { article: changed, title, titleChoices: choices },
      writes,
    };
  };
}

/** Shortens at a word's end. */
function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const head = text.slice(0, most + 1);
  return head
    .slice(0, Math.max(head.lastIndexOf(' '), Math.floor(most * 0.6)))
    .replace(/(?<![\s,;:–-])[\s,;:–-]+$/, '');
}

function unique(words: readonly string[]): string[] {
  return [...new Set(words.map((word) => word.trim()).filter((word) => word !== ''))];
}

/** The title an item came with, where the list it comes from is one of titles. */
function titleThatStays({ title, titleStays }: Readonly<Record<string, unknown>>): string | null {
  return titleStays === true && typeof title === 'string' && title.trim() !== '' ? title.trim() : null;
}
