import { describe, expect, it } from 'vitest';
import { type ArticleDocument, EMPTY_ARTICLE } from './block.ts';
import { structuredData } from './structured.ts';

const article = (body: ArticleDocument['body'], more: Partial<ArticleDocument> = {}): ArticleDocument => ({
  ...EMPTY_ARTICLE,
  language: 'en',
  title: 'Oiling a sledge runner',
  description: 'How a runner is oiled before the first frost.',
  slug: 'oiling-a-sledge-runner',
  body,
  ...more,
});

const picture = (file: string) => (file === 'f1' ? 'https://blog.example/f1.webp' : null);

describe('an article as machines read it', () => {
  it('says what readers find in it and nothing more', () => {
    expect(structuredData(article([]), { author: null, picture })).toEqual({
      '@context': 'https://schema.org',
      '@type': 'Article',
      headline: 'Oiling a sledge runner',
      description: 'How a runner is oiled before the first frost.',
      inLanguage: 'en',
    });
    const plain = structuredData(article([], { description: '', language: 'sv' }), { author: 'Moa Lund', picture });
    expect(plain).toMatchObject({ inLanguage: 'sv', author: { '@type': 'Person', name: 'Moa Lund' } });
    expect(plain).not.toHaveProperty('description');
  });

  it('names pictures that have an address, questions with their answers, and videos', () => {
    const figure = { type: 'figure', width: 800, height: 600, alternative: 'A runner on a bench', lead: true } as const;
    const data = structuredData(
      article([
        { ...figure, id: 'a', file: 'f1' },
        { ...figure, id: 'b', file: 'not sent' },
        {
          type: 'question and answer',
          id: 'c',
          question: 'Which oil?',
          answer: [{ text: 'Linseed, ' }, { text: 'thin' }],
        },
        {
          type: 'video',
          id: 'd',
          title: 'The bench',
          address: 'https://film.example/1',
          player: 'https://film.example/p/1',
        },
      ]),
      { author: null, picture },
    );
    expect(data['image']).toEqual([
      {
        '@type': 'ImageObject',
        url: 'https://blog.example/f1.webp',
        width: 800,
        height: 600,
        caption: 'A runner on a bench',
      },
    ]);
    expect(data['hasPart']).toEqual([
      {
        '@type': 'FAQPage',
        mainEntity: [
          { '@type': 'Question', name: 'Which oil?', acceptedAnswer: { '@type': 'Answer', text: 'Linseed, thin' } },
        ],
      },
      {
        '@type': 'VideoObject',
        name: 'The bench',
        url: 'https://film.example/1',
        embedUrl: 'https://film.example/p/1',
      },
    ]);
  });
});
