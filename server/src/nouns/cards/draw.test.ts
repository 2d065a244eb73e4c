import { CARD_SIDES, type CardDocument, newCard, resizedCard } from '@grivo/core';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { drawingAsPng } from '../../formats/pictures/drawing.ts';
import { type CardSubject, cardAlternative, drawnFor } from './draw.ts';

const subject = (title: string): CardSubject => ({
  title,
  keyPhrase: '',
  language: 'en',
  blog: 'The Canal Apiary',
  house: { shop: 'Canal & Sons' },
  now: Date.UTC(2026, 4, 3),
});
const draw = (card: CardDocument, title: string) => drawnFor(card, subject(title), new Map());
const titleOf = (card: CardDocument) => card.texts.findIndex(({ says }) => says === '{{ title }}');

/** Points along the curves of path data, in its own measure. */
function pointsOf(d: string): [number, number][] {
  const points: [number, number][] = [];
  let at: [number, number] = [0, 0];
  for (const [, command, figures] of d.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = figures!.trim() === '' ? [] : figures!.trim().split(/\s+/).map(Number);
    const pairs = Array.from({ length: n.length / 2 }, (_, i): [number, number] => [n[2 * i]!, n[2 * i + 1]!]);
    if (command === 'Z') continue;
    const controls = [at, ...pairs];
    for (let t = 0; t <= 1; t += 1 / 4) {
      // De Casteljau's way to a point of a curve.
      let level = command === 'M' ? [pairs[0]!] : controls;
      while (level.length > 1)
        level = level
          .slice(1)
          .map(([x, y], i): [number, number] => [
            level[i]![0] + (x - level[i]![0]) * t,
            level[i]![1] + (y - level[i]![1]) * t,
          ]);
      points.push(level[0]!);
    }
    at = pairs.at(-1)!;
  }
  return points;
}

/** What is inked of each text of a drawing, in pixels of the card. */
function inked(svg: string) {
  return [...svg.matchAll(/<g fill="[^"]*">(.*?)<\/g>/g)].map(([, group]) => {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    const scales = new Set<number>();
    for (const [, x, y, scale, d] of group!.matchAll(/translate\((\S+) (\S+)\) scale\((\S+)\)" d="([^"]*)"/g)) {
      scales.add(Number(scale) * 1_000);
      for (const [px, py] of pointsOf(d!)) {
        left = Math.min(left, Number(x) + px * Number(scale));
        right = Math.max(right, Number(x) + px * Number(scale));
        top = Math.min(top, Number(y) + py * Number(scale));
        bottom = Math.max(bottom, Number(y) + py * Number(scale));
      }
    }
    return { left, top, right, bottom, sizes: [...scales] };
  });
}

const WORDS = {
  Latin:
    'how to keep bees over winter Größe naïve çedilla Škoda jämför łąka what a hive weighs in March queen-rearing WAX'.split(
      ' ',
    ),
  Cyrillic: 'как держать пчёл зимой сколько мёда нужно семье в улье Щёлково матка рамка весной'.split(' '),
  Arabic: 'كيف تحافظ على النحل في الشتاء كم من العسل تحتاج الخلية 2.5 % (ملكة) الربيع'.split(' '),
};

/** Titles of every length from 1 to 140 letters, each by a draw of its own. */
function titles(words: readonly string[], many: number): string[] {
  let seed = words.length;
  const next = () => {
    seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31;
    return seed / 2 ** 31;
  };
  return Array.from({ length: many }, (_, n) => {
    const long = 1 + (n % 140);
    let title = '';
    while (title.length < long) title += `${title === '' ? '' : ' '}${words[Math.floor(next() * words.length)]}`;
    return title.slice(0, long).trim();
  });
}

describe('a title on a card', () => {
  for (const [script, words] of Object.entries(WORDS))
    test(`stands in its box at a size the card allows, whole, whatever its length: ${script}`, () => {
      let told = 0;
      for (const title of titles(words, 170)) {
        const card = newCard('A card');
        const { svg, texts, problems, says } = draw(card, title);
        const n = titleOf(card);
        if (problems.some(({ stops }) => stops)) {
          told++;
          continue;
        }
        expect(says[n]).toBe(title.replace(/\s+/g, ' '));
        // All of it is there, in its order.
        expect(texts[n]!.lines.join(' ').replace(/[\s\u00a0]+/g, '')).toBe(title.replace(/\s+/g, ''));
        const ink = inked(svg);
        for (const [i, { box, from, to }] of card.texts.entries()) {
          const { left, right, top, bottom, sizes } = ink[i]!;
          expect(left).toBeGreaterThanOrEqual(box.x - 0.5);
          expect(right).toBeLessThanOrEqual(box.x + box.width + 0.5);
          expect(top).toBeGreaterThanOrEqual(box.y - 0.5);
          expect(bottom).toBeLessThanOrEqual(box.y + box.height + 0.5);
          expect(Math.min(...sizes)).toBeGreaterThanOrEqual(from);
          expect(Math.max(...sizes)).toBeLessThanOrEqual(to);
        }
      }
      expect(told).toBeLessThan(10);
    });

  test('is as large as it can be: one pixel more and it would not stand there', () => {
    const card = newCard('A card');
    const n = titleOf(card);
    const title = 'A wooden box, a straw skep and a polystyrene hive compared over three winters';
    const { size } = draw(card, title).texts[n]!;
    const texts = card.texts.map((text, i) => (i === n ? { ...text, from: size + 1, to: size + 1 } : text));
    expect(size).toBeLessThan(card.texts[n]!.to);
    expect(draw({ ...card, texts }, title).problems.map(({ stops }) => stops)).toEqual([true]);
  });

  test('that does not fit is told with what would mend it, and neither cut nor made smaller', () => {
    const { problems, texts } = draw(
      newCard('A card'),
      'Unaufhörlichkeitsbienenschwarmbeobachtungsprotokoll '.repeat(8),
    );
    expect(problems[0]).toMatchObject({ text: 1, stops: true });
    expect(problems[0]!.sentence).toMatch(/does not fit its box at 40 px in 5 lines/);
    expect(problems[0]!.mend).toContain('shorten the text');
    expect(texts[1]!.lines).toEqual([]);
  });

  test('in letters that no face has is told by the letter', () => {
    expect(draw(newCard('A card'), '꿀벌').problems[0]!.sentence).toContain('‘꿀’');
  });

  test('keeps a sign with its figure and a hyphened word whole where there is room', () => {
    const lines = draw(newCard('A card'), 'A well-kept water-seal crock holds at most 2.5 % of its salt over winter')
      .texts[1]!.lines;
    expect(lines.some((line) => /^%|-$/.test(line))).toBe(false);
  });

  test('from right to left begins at the right', () => {
    const [arabic] = inked(draw(newCard('A card'), 'كيف تحافظ على النحل').svg).slice(1);
    const box = newCard('A card').texts[1]!.box;
    expect(box.x + box.width - arabic!.right).toBeLessThan(12);
    expect(arabic!.left).toBeGreaterThan(box.x + 100);
  });
});

test('fields are filled: title, blog, day and texts of the house', () => {
  const card = newCard('A card');
  const says = (text: string) => draw({ ...card, texts: [{ ...card.texts[0]!, says: text }] }, 'Wax').says[0];
  expect(says('{{ title }} at {{ blog.name }}')).toBe('Wax at The Canal Apiary');
  expect(says('{{ house.shop }}, {{ day }}')).toBe('Canal & Sons, 3 May 2026');
  expect(says('{{ keyPhrase }}')).toBe('Wax');
  const broken = draw({ ...card, texts: [{ ...card.texts[0]!, says: '{{ title' }] }, 'Wax');
  expect(broken.problems[0]).toMatchObject({ text: 0, stops: true });
});

test('letters that hardly show, a box past the edge and a picture that is gone are told, and the card is drawn all the same', () => {
  const card = newCard('A card');
  const pale = { ...card.texts[1]!, colour: '#d0ddd8' };
  const past = { ...card.texts[0]!, box: { ...card.texts[0]!.box, x: 900 } };
  const pictures = [{ file: 'a'.repeat(64), fills: true, round: true, box: { x: 0, y: 0, width: 10, height: 10 } }];
  const { problems, svg } = draw({ ...card, texts: [past, pale], pictures }, 'Wax');
  expect(problems.map(({ sentence }) => sentence)).toEqual([
    'Its box stands past the edge of the card.',
    'Its colour stands out too little from the ground.',
    'One of its pictures is gone.',
  ]);
  expect(problems.every(({ stops }) => !stops)).toBe(true);
  expect(svg).not.toContain('<image');
});

test('drawn as a file it has the sides of the card, and its ground and letters are to be seen', async () => {
  for (const { width, height } of CARD_SIDES) {
    const card = resizedCard(newCard('A card'), width, height);
    const png = drawingAsPng(draw(card, 'Why bees swarm').svg);
    const { data, info } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([width, height]);
    const at = (x: number, y: number) => [
      ...data.subarray((y * width + x) * info.channels, (y * width + x) * info.channels + 3),
    ];
    expect(at(2, 2)).toEqual([0xe4, 0xed, 0xe8]);
    let dark = 0;
    for (let i = 0; i < data.length; i += info.channels) if (data[i]! < 40 && data[i + 1]! < 70) dark++;
    expect(dark).toBeGreaterThan(width * 4);
  }
});

test('its alternative says the words on it', () => {
  expect(cardAlternative(['The Canal Apiary', '', 'Wax'], 'en')).toBe('Card with the words “The Canal Apiary”, “Wax”');
  expect(cardAlternative(['Wachs'], 'de')).toBe('Karte mit den Worten „Wachs“');
});
