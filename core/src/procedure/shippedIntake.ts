import type { ProcedureDocument } from './document.ts';
import { stepKinds as k } from './registry.ts';
import { ofOthers, ofOwn, type Shipped, short, take } from './shippedParts.ts';

/** Procedures to begin with for everything that is neither a phrase, a row nor a video. */
export const SHIPPED_INTAKE: readonly Shipped[] = [
  {
    key: 'round-up',
    from: 'feed',
    name: 'News to a round-up',
    says: 'Gathers eight new entries, reads the page behind each, drops what is poor, and makes one article of the rest that links each.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 8, gather: 8 }),
        { ...k.read.fresh('r1'), what: 'the page', most: 1_500 },
        {
          ...k.judge.fresh('j1'),
          qualities: 'substance, figures and examples',
          least: 5,
          instruction: 'What only sells, announces or points elsewhere has no substance.',
        },
        { ...k.outline.fresh('s3'), sections: { from: 2, to: 8 }, follow: 'following its chapters' },
        { ...k.write.fresh('s4'), words: 900, parts: ['key points', 'source credit'] },
        k.title.fresh('s5'),
        k.illustrate.fresh('s6'),
        { ...k.link.fresh('s7'), blog },
        { ...k.check.fresh('s8'), words: { from: 150, to: 3_000 } },
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'entries',
    from: 'feed',
    name: 'News, one article each',
    says: 'Reads the page behind each new entry, sets it aside when it is poor, and makes an article of it that credits it.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 2 }),
        { ...k.read.fresh('r1'), what: 'the page' },
        { ...k.judge.fresh('j1'), qualities: 'substance, figures and examples', least: 5 },
        ...short(blog, 300, { from: 80, to: 1_500 }, ofOthers),
      ],
    }),
  },
  {
    key: 'document',
    from: 'documents',
    name: 'Documents to articles',
    says: 'Reads a document or page whole and makes an article of it that follows its parts and says where each figure stands.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 1, everyMinutes: null }),
        { ...k.read.fresh('r1'), what: 'the document' },
        { ...k.outline.fresh('s3'), sections: { from: 2, to: 8 }, follow: 'following its chapters' },
        { ...k.write.fresh('s4'), words: 900, parts: ['contents', 'key points', 'lists', 'source credit'] },
        k.title.fresh('s5'),
        k.illustrate.fresh('s6'),
        { ...k.link.fresh('s7'), blog },
        { ...ofOwn('s8', { from: 100, to: 3_000 }), otherwise: 'hold it for me' },
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'products',
    from: 'catalogue',
    name: 'Products to notes',
    says: 'Reads the page behind each product, and makes a short note of it that links it with the partner’s id.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 2 }),
        { ...k.read.fresh('r1'), what: 'the page', most: 600 },
        ...short(blog, 150, { from: 40, to: 800 }),
      ],
    }),
  },
  {
    key: 'follow',
    from: 'publications',
    name: 'Follow a publication',
    says: 'Reads what went out, makes a short version of it as a draft that links it, and tells somebody by mail.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 3, everyMinutes: 60 }),
        { ...k.read.fresh('r1'), what: 'the page' },
        { ...k.outline.fresh('s3'), sections: { from: 1, to: 2 } },
        { ...k.write.fresh('s4'), words: 150, parts: ['source credit'] },
        k.title.fresh('s5'),
        k.illustrate.fresh('s6'),
        { ...k.publish.fresh('s9'), blog, when: 'at once', as: 'draft' },
        { ...k.tell.fresh('t1'), subject: 'Out: {{ subject }}', text: '{{ subject }} is out at {{ link }}.' },
      ],
    }),
  },
  {
    key: 'recording',
    from: 'recordings',
    name: 'Recordings to articles',
    says: 'Has each recording heard, holds what was heard badly, and makes an article of what is said.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [take(source, { most: 1 }), k.hear.fresh('r1'), ...short(blog, 500, { from: 80, to: 2_000 })],
    }),
  },
  {
    key: 'handed in',
    from: 'hook',
    name: 'What a program hands in',
    says: 'Makes an article of the notes that came with each call, as soon as it comes.',
    make: ({ source, blog, language }) => fromNotes(source, blog, language),
  },
  {
    key: 'requests',
    from: 'requests',
    name: 'Requests to articles',
    says: 'Makes an article of the notes typed in with each subject, looking nothing up.',
    make: ({ source, blog, language }) => fromNotes(source, blog, language),
  },
];
function fromNotes(source: string, blog: string, language: string): ProcedureDocument {
  return {
    grivo: 1,
    language,
    steps: [
      take(source, { most: null, everyMinutes: null }),
      { ...k.read.fresh('r1'), what: 'the notes' },
      ...short(blog, 400, { from: 40, to: 2_000 }),
    ],
  };
}
