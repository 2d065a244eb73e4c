import { z } from 'zod';
import { stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';
import { listWords, type Names, type Option, optional, type SentencePart } from '../sentence.ts';

/** What a post is for readers of the blog: seen by all, by nobody yet, by nobody until the blog's own people passed it, or by those who sign in there. */
export const OUT_AS = ['live', 'draft', 'review', 'private'] as const;
export type OutAs = (typeof OUT_AS)[number];

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('publish'),
  blog: z.string(),
  /** Whether it is always that blog, or another one by the language of the article or by a name. */
  by: z.enum(['that blog', 'its language', 'a name']).default('that blog'),
  /** The name of the blog, as a Liquid text; where it comes out empty it is the one chosen. */
  named: z.string().trim().max(200).default(''),
  when: z.enum(['next free slot', 'at once', 'dated ahead']),
  as: z.enum(OUT_AS),
  /** An article among others, or a page that stands by itself. */
  shape: z.enum(['article', 'page']).default('article'),
  /** Categories of the blog, as Liquid texts; none where none is chosen. */
  categories: z.array(z.string().trim().min(1).max(120)).max(20).default([]),
  /** Whether the article's own tags go along. */
  tags: z.enum(['none', 'its own']).default('none'),
  /** Whether the category of the blog that fits the article best is found; the ones chosen count where none fits. */
  fit: z.enum(['as chosen', 'best fit']).default('as chosen'),
  /** What becomes of names the blog does not have yet. */
  newOnes: z.enum(['made', 'left out']).default('made'),
  /** Who it is by, as a Liquid text; whoever the blog says where it is empty. */
  author: z.string().trim().max(200).default(''),
  /** Who it is by in turn, where there is more than one; the one whose last post there is the longest ago. */
  authors: z.array(z.string().trim().min(1).max(200)).max(20).default([]),
  /** Whether readers may reply under it. */
  replies: z.enum(['as the blog does', 'on', 'off']).default('as the blog does'),
  /** Properties of the blog's own, each as `name: text`, the text with fields. */
  properties: z.array(z.string().trim().min(1).max(600)).max(20).default([]),
});
export type PublishStep = z.infer<typeof schema>;

export const publish: StepKind<'publish', PublishStep> = {
  kind: 'publish',
  does: 'puts the article on a blog, at its slot',
  schema,
  needs: ['article', 'title'],
  gives: ['publication'],
  uses: (step) => [
    ...step.categories.map((text) => ({ field: 'categories', as: 'template' as const, text })),
    { field: 'author', as: 'template', text: step.author },
    ...step.properties.map((text) => ({ field: 'properties', as: 'template' as const, text })),
    ...(step.by === 'a name' ? [{ field: 'named', as: 'template' as const, text: step.named }] : []),
  ],
  calls: null,
  effect: true,
  writes: false,
  fresh: (id) => ({
    id,
    kind: 'publish',
    off: false,
    blog: '',
    by: 'that blog',
    named: '',
    when: 'next free slot',
    as: 'live',
    shape: 'article',
    categories: [],
    tags: 'none',
    fit: 'as chosen',
    newOnes: 'made',
    author: '',
    authors: [],
    replies: 'as the blog does',
    properties: [],
  }),
  sentence: (step, names) => [
    { text: 'Publish to ' },
    {
      word: step.blog === '' ? 'a blog not chosen yet' : names.blog(step.blog),
      field: 'blog',
      editor: { type: 'reference', to: 'blog' },
    },
    ...anotherBlog(step),
    { text: ' ' },
    {
      word: WHEN.find(({ value }) => value === step.when)!.says,
      field: 'when',
      editor: { type: 'choice', options: offered(WHEN, 'when', step, names) },
    },
    { text: ' as a ' },
    {
      word: AS.find(({ value }) => value === step.as)!.says,
      field: 'as',
      editor: { type: 'choice', options: offered(AS, 'as', step, names) },
    },
    ...optional(
      step.shape === 'page',
      ', ',
      {
        word: 'as a standing page',
        field: 'shape',
        editor: { type: 'choice', options: offered(SHAPES, 'shape', step, names) },
      },
      'a standing page',
    ),
    ...namesSentence(step),
    ...sidesSentence(step, names),
  ],
  check: (step, context) => [
    ...(context.hasBlog(step.blog) ? [] : [faulty(step, 'blog', 'It publishes to no blog.', 'Choose a blog.')]),
    ...(step.by === 'a name' && step.named === ''
      ? [faulty(step, 'named', 'It does not say which field names the blog.', 'Name a field, as in {{ row.blog }}.')]
      : []),
    ...notThere(step, context.names),
    ...(step.when === 'dated ahead' && step.as !== 'live' && step.as !== 'private'
      ? [
          faulty(
            step,
            'when',
            'A draft has no date readers wait for.',
            'Make it a live post, or choose another moment.',
          ),
        ]
      : []),
    ...step.properties.flatMap((text) => {
      const problem = propertyIn(text) === null ? 'is no property: it needs a name, a colon and a text' : null;
      return problem
        ? [
            faulty(
              step,
              'properties',
              `‘${text.slice(0, 60)}’ ${problem}.`,
              'Write it as in ‘reading-time: 5 minutes’.',
            ),
          ]
        : [];
    }),
  ],
};

const faulty = (step: PublishStep, field: keyof PublishStep, sentence: string, mend: string) => ({
  step: step.id,
  field,
  grade: 'error' as const,
  sentence,
  mend,
});

/** A property as it is typed, `name: text`; null when it is none, or has the name of something every post says anyway. */
export function propertyIn(text: string): { name: string; text: string } | null {
  const at = text.indexOf(':');
  const name = at < 0 ? '' : text.slice(0, at).trim();
  const says = text.slice(at + 1).trim();
  return PROPERTY_NAME.test(name) && !OWN_PROPERTIES.has(name.toLowerCase()) && says !== ''
    ? { name, text: says }
    : null;
}

const PROPERTY_NAME = /^[A-Za-z][\w-]{0,59}$/;
/** What posts say by other words of the step; two of a name would contradict each other. */
const OWN_PROPERTIES = new Set(
  'name title content html summary description category categories photo picture published date draft author post-status visibility mp-slug slug language key url type action'.split(
    ' ',
  ),
);

const WHEN = [
  {
    value: 'next free slot',
    says: 'in the next free slot',
    does: 'waits here for the first slot of the cadence that no article holds',
  },
  { value: 'at once', says: 'at once', does: 'goes out as soon as the article is finished' },
  {
    value: 'dated ahead',
    says: 'dated for the next free slot',
    does: 'goes to the blog as soon as it is finished, dated for its slot; the blog keeps it until then',
  },
];

const AS = [
  { value: 'live', says: 'live post', does: 'readers see it' },
  { value: 'draft', says: 'draft', does: 'only the owner of the blog sees it' },
  {
    value: 'review',
    says: 'post for the blog’s own review',
    does: 'waits on the blog until its people pass it there; that is noticed here',
  },
  { value: 'private', says: 'private post', does: 'only readers who sign in at the blog see it' },
];

const REPLIES = [
  { value: 'as the blog does', says: 'replies as the blog does', does: 'nothing is said of them' },
  { value: 'on', says: 'with replies', does: 'readers may reply and mention it' },
  { value: 'off', says: 'without replies', does: 'nobody may reply or mention it' },
];

const SHAPES = [
  { value: 'article', says: 'an article among the others', does: 'it stands in the list and the feed of the blog' },
  { value: 'page', says: 'as a standing page', does: 'it stands by itself, outside the list of articles' },
];

/** What a blog must be able to do for a word to have a value. */
const NEEDS: readonly { field: 'when' | 'as' | 'shape' | 'replies'; value: string; what: string }[] = [
  { field: 'when', value: 'dated ahead', what: 'dated ahead' },
  { field: 'as', value: 'draft', what: 'drafts' },
  { field: 'as', value: 'review', what: 'review' },
  { field: 'as', value: 'private', what: 'private' },
  { field: 'shape', value: 'page', what: 'pages' },
  { field: 'replies', value: 'on', what: 'replies' },
  { field: 'replies', value: 'off', what: 'replies' },
];

/** The values of a word; those the blog cannot do say why. */
function offered(
  options: readonly Option[],
  field: (typeof NEEDS)[number]['field'],
  { blog }: PublishStep,
  names: Names,
): Option[] {
  const lacks = names.blogLacks?.(blog) ?? {};
  return options.map((option) => {
    const need = NEEDS.find((one) => one.field === field && one.value === option.value);
    const why = need && lacks[need.what];
    return why === undefined ? option : { ...option, not: why };
  });
}

/** What of a step its blog cannot do. What waits here for its slot instead of there is no fault. */
function notThere(step: PublishStep, names: Names) {
  const lacks = names.blogLacks?.(step.blog) ?? {};
  const wanted = [
    ...NEEDS.filter(({ field, value }) => field !== 'when' && step[field] === value),
    ...(step.properties.length > 0 ? [{ field: 'properties' as const, what: 'properties' }] : []),
  ];
  return wanted.flatMap(({ field, what }) => {
    const why = lacks[what];
    return why === undefined
      ? []
      : [
          faulty(
            step,
            field,
            `${names.blog(step.blog)} cannot do this: ${why}`,
            'Choose something else, or another blog.',
          ),
        ];
  });
}

/** Which blog it is, where that is not always the same. */
function anotherBlog({ by, named }: PublishStep): SentencePart[] {
  return [
    ...optional(
      by !== 'that blog',
      ', or ',
      {
        word: by === 'a name' ? 'the blog named' : 'the blog of its language',
        field: 'by',
        editor: {
          type: 'choice',
          options: [
            { value: 'that blog', says: 'always that blog', does: 'whatever the article is' },
            {
              value: 'its language',
              says: 'the blog of its language',
              does: 'the first of the blogs whose language it is; where there is none it stops and says so',
            },
            {
              value: 'a name',
              says: 'the blog named',
              does: 'by a field that holds a blog’s name, as in a column of a sheet; an unknown name stops that article alone',
            },
          ],
        },
      },
      'another blog by language or name',
    ),
    ...(by === 'a name'
      ? [{ text: ' ' }, { word: named || 'by no field yet', field: 'named', editor: { type: 'text' as const } }]
      : []),
  ];
}

/** Its tags, and what becomes of names the blog does not have. */
function tagsSentence(step: PublishStep): SentencePart[] {
  return [
    ...optional(
      step.tags !== 'none',
      ', with ',
      {
        word: 'its own tags',
        field: 'tags',
        editor: {
          type: 'choice',
          options: [
            { value: 'none', says: 'no tags', does: 'only the categories chosen here' },
            { value: 'its own', says: 'its own tags', does: 'its key phrase, and terms that stand in it' },
          ],
        },
      },
      'its own tags',
    ),
    ...optional(
      step.newOnes !== 'made',
      '; ',
      {
        word: 'names the blog does not have are left out',
        field: 'newOnes',
        editor: {
          type: 'choice',
          options: [
            { value: 'made', says: 'names the blog does not have are made', does: 'the blog adds them to its own' },
            {
              value: 'left out',
              says: 'names the blog does not have are left out',
              does: 'as its last test told them; where it does not tell, all go along',
            },
          ],
        },
      },
      'no new categories',
    ),
  ];
}

/** What the post goes under, and who it is by. */
function namesSentence(step: PublishStep): SentencePart[] {
  return [
    ...optional(
      step.categories.length > 0,
      ' under ',
      { word: listWords(step.categories, ''), field: 'categories', editor: { type: 'values', most: 20 } },
      'categories',
    ),
    ...optional(
      step.fit !== 'as chosen',
      step.categories.length > 0 ? ', but first ' : ' under ',
      {
        word: 'the category that fits best',
        field: 'fit',
        editor: {
          type: 'choice',
          options: [
            { value: 'as chosen', says: 'as chosen', does: 'the categories chosen here and no others' },
            {
              value: 'best fit',
              says: 'the category that fits best',
              does: 'of those the blog has, by the words of the article; the ones chosen count where none fits',
            },
          ],
        },
      },
      'the best fitting category',
    ),
    ...tagsSentence(step),
    ...optional(
      step.author !== '',
      ', by ',
      { word: step.author, field: 'author', editor: { type: 'text' } },
      'an author',
    ),
    ...optional(
      step.authors.length > 0,
      step.author === '' ? ', by ' : ', else by ',
      { word: listWords(step.authors, ''), field: 'authors', editor: { type: 'values', most: 20 } },
      'authors in turn',
      step.authors.length > 1 ? [{ text: ' in turn' }] : [],
    ),
  ];
}

/** What else it says beside its text. */
function sidesSentence(step: PublishStep, names: Names): SentencePart[] {
  return [
    ...optional(
      step.replies !== 'as the blog does',
      ', ',
      {
        word: step.replies === 'on' ? 'with replies' : 'without replies',
        field: 'replies',
        editor: {
          type: 'choice',
          options: offered(REPLIES, 'replies', step, names),
        },
      },
      'replies on or off',
    ),
    ...optional(
      step.properties.length > 0,
      ', with ',
      { word: listWords(step.properties, '', 2), field: 'properties', editor: { type: 'values', most: 20 } },
      'properties of the blog’s own',
    ),
  ];
}
