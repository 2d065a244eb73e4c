import type { ArticleDocument, Block, Figure } from './block.ts';
import { inlineText } from './inline.ts';

/** What is known of a post besides its text. */
export interface Told {
  author: string | null;
  /** The address of a stored file by its digest; null where it has none for readers. */
  picture: (file: string) => string | null;
}

/**
 * An article as machines read it (JSON-LD 1.1 in the vocabulary of schema.org: Article, FAQPage, VideoObject), but for
 * where and when it is read. Nothing stands in it that readers do not find in the article.
 */
export function structuredData(document: ArticleDocument, { author, picture }: Told): Record<string, unknown> {
  const pictures = document.body.flatMap((block) => (block.type === 'figure' ? pictureIn(block, picture) : []));
  const article = {
    '@type': 'Article',
    headline: document.title,
    ...(document.description === '' ? {} : { description: document.description }),
    inLanguage: document.language,
    ...(author === null ? {} : { author: { '@type': 'Person', name: author } }),
    ...(pictures.length === 0 ? {} : { image: pictures }),
  };
  const parts = [...questionsIn(document.body), ...videosIn(document.body, picture)];
  return {
    '@context': 'https://schema.org',
    ...article,
    ...(parts.length === 0 ? {} : { hasPart: parts }),
  };
}

function pictureIn({ file, width, height, alternative }: Figure, picture: Told['picture']): object[] {
  const url = picture(file);
  return url === null ? [] : [{ '@type': 'ImageObject', url, width, height, caption: alternative }];
}

function questionsIn(body: readonly Block[]): object[] {
  const questions = body.flatMap((block) =>
    block.type === 'question and answer'
      ? [
          {
            '@type': 'Question',
            name: block.question,
            acceptedAnswer: { '@type': 'Answer', text: inlineText(block.answer) },
          },
        ]
      : [],
  );
  return questions.length === 0 ? [] : [{ '@type': 'FAQPage', mainEntity: questions }];
}

const videosIn = (body: readonly Block[], picture: Told['picture']): object[] =>
  body.flatMap((block) =>
    block.type === 'video'
      ? [
          {
            '@type': 'VideoObject',
            name: block.title,
            url: block.address,
            ...thumbnailOf(block.picture ? picture(block.picture.file) : null),
            ...(block.player === undefined ? {} : { embedUrl: block.player }),
            ...(block.film === undefined ? {} : { contentUrl: block.film }),
          },
        ]
      : [],
  );

const thumbnailOf = (address: string | null): object => (address === null ? {} : { thumbnailUrl: address });
