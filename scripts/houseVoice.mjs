// The house style of the demonstration: learnt from seven notes of the shop, and corrected by hand where its keeper would.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const FOLDER = join(import.meta.dirname, 'voice');

/** The notes it is learnt from, each with its title. */
function notes() {
  return readdirSync(FOLDER)
    .sort()
    .map((file) => {
      const [title, ...lines] = readFileSync(join(FOLDER, file), 'utf8').trim().split('\n');
      return { name: title.replace(/^# /, ''), text: lines.join('\n').trim(), language: 'en' };
    });
}

/** Its card: the title large on a pale ground, the blog above it, the day at its foot. */
const CARD = {
  name: 'Title and day',
  width: 1_200,
  height: 630,
  ground: { colour: '#e4ede8', to: '#c4d6d1', towards: 'down', picture: null },
  areas: [
    { colour: '#2f5a5d', box: { x: 0, y: 0, width: 28, height: 630 } },
    { colour: '#2f5a5d', box: { x: 96, y: 536, width: 72, height: 4 } },
  ],
  pictures: [],
  texts: [
    line('{{ blog.name }}', { x: 96, y: 56, width: 1_032, height: 64 }, { bold: true }),
    {
      ...line('{{ title }}', { x: 96, y: 132, width: 1_032, height: 380 }),
      face: 'book',
      bold: true,
      colour: '#0d2a2d',
      from: 44,
      to: 100,
      most: 5,
    },
    line('{{ day }}', { x: 96, y: 552, width: 1_032, height: 48 }),
  ],
};

function line(says, box, more = {}) {
  const plain = { face: 'plain', bold: false, colour: '#2f5a5d', from: 24, to: 32, most: 1 };
  return { says, ...plain, across: 'start', down: 'middle', box, ...more };
}

/** Makes the style, has it learnt, corrects it, and lets blogs keep to it. */
export async function houseStyle(call, blogs) {
  const { id } = await call('POST', '/styles', { name: 'Bench voice' });
  for (const note of notes()) await call('POST', `/styles/${id}/texts`, note);
  const { rev } = await call('GET', `/styles/${id}`);
  const learnt = await call('POST', `/styles/${id}/learn`, {}, { 'if-match': `"${rev}"` });
  const { document } = learnt;
  await call(
    'PUT',
    `/styles/${id}`,
    {
      document: {
        ...document,
        spelling: 'British',
        voice: `${document.voice} Write like someone at a bench with wet hands: put the figure before the reason, and admit what went wrong here. Promise nothing about health.`,
        // What an article of a machine is held to; the other figures are there to look at.
        ranges: {
          sentence: { from: 6, to: 20 },
          long: { from: 0, to: 20 },
          exclamations: { from: 0, to: 2 },
          questions: { from: 0, to: 10 },
        },
        words: [
          { use: 'brine', not: ['salt water', 'salty water'] },
          { use: 'crock', not: ['vessel'] },
          { use: 'throw out', not: ['discard'] },
          { use: 'cloudy', not: ['unclear'] },
          { use: 'about', not: ['approximately', 'roughly'] },
          { use: 'sour', not: ['tangy'] },
        ],
        never: ['superfood', 'detox', 'gut health', 'game changer'],
        facts: [
          'Crockhaven is a small shop for fermenting gear and keeps its own crocks by the back door.',
          'At Crockhaven salt is always given by weight, in grams to the kilo or to the litre.',
          'Crockhaven changes the rubber rings of its jars every autumn.',
        ],
        standing: [
          {
            at: 'at the end',
            section: 1,
            texts: [
              'Salt is given by weight throughout. {Ask us|Come and ask} when something looks odd: we have probably {seen|had} it.',
            ],
          },
        ],
        call: { before: 'Not sure what is growing there?', button: 'Ask us at the bench', address: '/ask' },
        disclosure: 'Drafted by machine from the sources it rests on.',
        pictures: 'line drawing, flat wash, no hands',
        links: { most: 5, aParagraph: 1, inOpening: false },
        values: [{ name: 'shop', text: 'Crockhaven' }],
        cards: [CARD],
      },
    },
    { 'if-match': `"${learnt.rev}"` },
  );
  for (const blog of blogs) await call('PATCH', `/blogs/${blog}`, { style: id });
  return id;
}
