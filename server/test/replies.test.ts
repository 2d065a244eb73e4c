import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { connected, ownWriter, type WriterReply, writtenBy } from './ground/ownWriter.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});

const SENTENCES = [
  'Weigh the salt, and do not measure it by the spoon: the grains of one sort lie closer than those of another.',
  'Whoever weighs it once knows for the rest of the year what a handful is worth.',
  'The cabbage gives its own brine when it is pressed, and that is all the liquid there is to be.',
];

let writer: Awaited<ReturnType<typeof ownWriter>>;
let service = '';
beforeAll(async () => {
  writer = await ownWriter(SENTENCES);
  service = await connected(desk, writer.address);
});
afterAll(() => writer.close());
beforeEach(() => writer.forget());

const written = () => writtenBy(desk, service);

const cut = (good: string) => ({ content: good.slice(0, -40), finish: 'length' });

describe('a reply in a wrong form ends in an article', () => {
  const FORMS: [string, (good: string) => WriterReply][] = [
    ['prose around it', (good) => ({ content: `Certainly!\n\n\`\`\`json\n${good}\n\`\`\`\nTell me if I may help.` })],
    ['thoughts first', (good) => ({ content: `<think>First {"blocks":[]} comes to mind.</think>\n${good}` })],
    ['two objects', (good) => ({ content: `{"blocks":[{"kind":"draft"}]}\n${good}` })],
    ['cut by its length', cut],
    ['empty', () => ({ content: '' })],
    ['words for an object', () => ({ content: 'Weigh the salt, and do not measure it.' })],
    ['of another shape', (good) => ({ content: good.replaceAll('"text"', '"words"') })],
    ['numbers as words', (good) => ({ content: good.replace(/"passages":\[\d+/g, '"passages":["one"') })],
    ['passages that are not there', (good) => ({ content: good.replace(/"passages":\[/, '"passages":[94,') })],
    ['Markdown inside', (good) => ({ content: good.replace('Weigh the salt', '**Weigh the salt**') })],
    ['numbers of passages inside', (good) => ({ content: good.replace('of another.', 'of another [1].') })],
    [
      'another language',
      (good) => ({
        content: good.replaceAll(
          /"text":"[^"]*"/g,
          '"text":"Das Salz wird nicht gemessen, sondern mit der Waage gewogen, und das ist auch gut."',
        ),
      }),
    ],
  ];
  test.each(FORMS)('%s', async (_name, form) => {
    writer.instead.push(form);
    const { text, failure } = await written();
    expect(failure).toBeNull();
    expect(text).toContain('Weigh the salt, and do not measure it by the spoon');
    expect(text).not.toMatch(/\*\*|\[1\]|<think>|Certainly/);
  });

  test('what is wrong twice is taken as far as it can be used', async () => {
    const marked = (good: string) => ({ content: good.replace('Weigh the salt', '**Weigh the salt**') });
    writer.instead.push(marked, marked);
    const { text, failure } = await written();
    expect(failure).toBeNull();
    expect(text).toContain('Weigh the salt, and do not measure it by the spoon');
  });
});

describe('or in a failure that says what it is', () => {
  test.each([
    ['a refusal in words', { content: 'I’m sorry, but I can’t write about that.' }, 'declined'],
    ['a refusal in its own field', { content: '', refusal: 'I will not.' }, 'declined'],
    ['nothing but words, again and again', { content: 'No.' }, 'replies-unusable'],
  ])('%s', async (_name, reply, code) => {
    for (let i = 0; i < 12; i++) writer.instead.push(() => reply);
    const { standing, failure } = await written();
    expect([standing, failure?.code]).toEqual(['stopped', code]);
  });

  test('what is wrong with a reply is said to the service, all of it, once', async () => {
    writer.instead.push((good) => ({
      content: good.replace('Weigh', '**Weigh**').replace(/"passages":\[/, '"passages":[94,'),
    }));
    await written();
    const repairs = writer.asked.flatMap(({ messages }) =>
      messages.filter(({ content }) => content.startsWith('That reply cannot be used')),
    );
    expect(repairs).toHaveLength(1);
    expect(repairs[0]!.content).toMatch(/there is no passage 94; block 1: its text has marks of Markdown/);
  });

  test('a reply that was cut is given more room', async () => {
    writer.instead.push(cut);
    await written();
    const rooms = writer.asked.map(({ max_tokens }) => Number(max_tokens));
    expect(Math.max(...rooms)).toBe(Math.min(16_000, 3 * Math.min(...rooms.filter((room) => room >= 600))));
  });
});

test.each([
  ['strict schemas', ['json_schema']],
  ['strict schemas nor JSON', ['json_schema', 'json_object']],
])('a service that knows no %s is told the form in words, and writes', async (_name, parts) => {
  writer.unknown.push(...parts);
  const { text, failure } = await written();
  expect(failure).toBeNull();
  expect(text).toContain('Weigh the salt');
  expect(JSON.stringify(writer.asked.at(-1)!['messages'])).toContain(
    'Reply with one JSON object that fits this JSON Schema',
  );
});
