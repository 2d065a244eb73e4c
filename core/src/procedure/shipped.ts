import { stepKinds as k } from './registry.ts';
import { SHIPPED_INTAKE } from './shippedIntake.ts';
import { lengthChecked, lookUp, made, ofOwn, type Shipped, take } from './shippedParts.ts';

export type { Shipped, ShippedFor, ShippedFrom } from './shippedParts.ts';

/** Procedures to begin with, for the sources and steps there are. */
export const SHIPPED: readonly Shipped[] = [
  {
    key: 'guides',
    from: 'keywords',
    name: 'Keywords to guides',
    says: 'Looks a phrase up and makes an illustrated, linked article of it for the next free slot.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [take(source), lookUp, ...made(blog), lengthChecked('s8'), { ...k.publish.fresh('s9'), blog }],
    }),
  },
  {
    key: 'video',
    from: 'videos',
    name: 'Videos to guides',
    says: 'Reads the captions of each new video and makes an article of it that follows its chapters, shows it and credits it.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 1 }),
        k.read.fresh('r1'),
        k.aim.fresh('a1'),
        { ...k.outline.fresh('s3'), sections: { from: 3, to: 7 }, follow: 'following its chapters' },
        { ...k.write.fresh('s4'), words: 700, parts: ['key points', 'lists', 'source credit', 'source embed'] },
        k.title.fresh('s5'),
        k.illustrate.fresh('s6'),
        { ...k.link.fresh('s7'), blog },
        ofOwn('s8', { from: 250, to: 2_000 }),
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'rows',
    from: 'sheet',
    name: 'Rows to product notes',
    says: 'Makes a short note of each new row of a sheet: what it is, what it is good for, how to look after it.',
    make: ({ source, blog, language, columns = [] }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 2 }),
        { ...k.read.fresh('r1'), what: 'the row', columns: [...columns] },
        { ...k.outline.fresh('s3'), sections: { from: 1, to: 2 } },
        { ...k.write.fresh('s4'), words: 120, parts: [] },
        k.title.fresh('s5'),
        k.illustrate.fresh('s6'),
        ofOwn('s8', { from: 40, to: 600 }),
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'judged',
    from: 'keywords',
    name: 'Only what is worth it',
    says: 'Judges what was found first, and sets a phrase aside when the sources are thin.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source),
        lookUp,
        { ...k.judge.fresh('j1'), qualities: 'substance, figures and examples', least: 5 },
        ...made(blog),
        lengthChecked('s8'),
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'guided',
    from: 'keywords',
    name: 'Guided, with a person at each turn',
    says: 'Stops at the outline, the notes and the title for you to choose, shift, drop and correct, then writes.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 1, everyMinutes: null }),
        lookUp,
        { ...k.outline.fresh('s3'), hold: true },
        { ...k.notes.fresh('n1'), hold: true },
        { ...k.write.fresh('s4'), words: 900, parts: ['key points', 'lists'] },
        { ...k.title.fresh('s5'), hold: true },
        k.illustrate.fresh('s6'),
        { ...k.link.fresh('s7'), blog },
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'languages',
    from: 'keywords',
    name: 'One article in several languages',
    says: 'Publishes an article, then puts it into German, French and Spanish, each an article of its own, as drafts.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 1 }),
        lookUp,
        ...made(blog, 600),
        { ...k.publish.fresh('s9'), blog },
        {
          ...k['for each'].fresh('e1'),
          values: ['German', 'French', 'Spanish'],
          as: 'tongue',
          name: 'versions',
          steps: [
            { ...k.translate.fresh('t1'), into: '{{ tongue }}' },
            { ...k.publish.fresh('t2'), blog, when: 'at once', as: 'draft' },
          ],
        },
      ],
    }),
  },
  {
    key: 'finished',
    from: 'keywords',
    name: 'A finished text, laid out as it stands',
    says: 'Asks for a text at each run, illustrates and links it, and publishes it without changing a word.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      inputs: [{ name: 'body', asks: 'The text, as Markdown', otherwise: null }],
      steps: [
        take(source, { most: 1, everyMinutes: null }),
        k['lay out'].fresh('l1'),
        k.illustrate.fresh('s6'),
        { ...k.link.fresh('s7'), blog },
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'two results',
    from: 'keywords',
    name: 'An article and a short draft from it',
    says: 'Publishes the article and meanwhile makes a second version under another title, as a draft to be used elsewhere.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source, { most: 1 }),
        lookUp,
        ...made(blog),
        {
          ...k.meanwhile.fresh('m1'),
          name: 'short',
          ifStopped: 'go on without it',
          steps: [
            {
              ...k.vary.fresh('v1'),
              variants: ['{In short|At a glance}: {{ subject }}', '{{ subject }}, {briefly|in a minute}'],
              for: 'the title',
            },
            { ...k.publish.fresh('v2'), blog, when: 'at once', as: 'draft' },
          ],
        },
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  {
    key: 'strict',
    from: 'keywords',
    name: 'Checked hard',
    says: 'Writes again, twice at most, what is too short, too like its sources, or holds a figure no source has; then a person looks.',
    make: ({ source, blog, language }) => ({
      grivo: 1,
      language,
      steps: [
        take(source),
        lookUp,
        ...made(blog),
        {
          ...k.check.fresh('s8'),
          words: { from: 300, to: 2_000 },
          avoid: ['game changer', 'in today’s world'],
          figures: true,
          again: 2,
          otherwise: 'hold it for me',
        },
        { ...k.publish.fresh('s9'), blog },
      ],
    }),
  },
  ...SHIPPED_INTAKE,
];

export function shipped(key: string): Shipped {
  const found = SHIPPED.find((one) => one.key === key);
  if (!found) throw new Error(`there is no shipped procedure ‘${key}’`);
  return found;
}
