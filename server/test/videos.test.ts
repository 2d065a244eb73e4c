import type { BriefWhole, VideoText } from '@grivo/contract';
import { stepKinds as k, type ProcedureDocument, SHIPPED } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((opened) => {
  desk = opened;
  ({ w, ask } = opened);
});
const { at, itemsOf, sourceOf, look, offered, take, upload } = intakeAt(() => desk);

describe('videos', () => {
  test('a channel is found by handle, name and address, stray characters forgiven', async () => {
    const find = (text: string) =>
      ask<{ name: string; address: string; videos: number }>('POST', '/channels/find', { text });
    for (const text of [
      '@crockhaven-bench',
      ' “Crockhaven Bench”, ',
      'crockhaven bench',
      at('/videos/@crockhaven-bench'),
      'crockhaven-bench\u200b',
      '@crockhaven-bench/uploads',
    ])
      expect((await find(text)).body).toMatchObject({
        name: 'Crockhaven Bench',
        address: at('/videos/@crockhaven-bench'),
      });
    expect((await find(at('/videos/@crockhaven-bench/lists/basics'))).body).toMatchObject({
      name: 'The basics',
      videos: 3,
    });
    const none = await find('@nobody-at-all');
    expect([none.status, none.problem.detail]).toEqual([422, '‘@nobody-at-all’: The videos knows no such channel.']);
    expect((await find(at('/videos/@nobody'))).problem.detail).toMatch(/there is no such channel/);
    expect((await find(at('/pages/none'))).status).toBe(422);
  });

  test('what is said is read with its chapters, by hand or by machine, and says what it carries', async () => {
    const source = await sourceOf({
      kind: 'videos',
      addresses: ['soft-sauerkraut', 'how-full', 'kraut-keller'].map((slug) =>
        at(`/videos/watch/${slug}?utm_source=mail#t=3`),
      ),
    });
    await look(source);
    const texts = await Promise.all(
      (await offered(source)).map(async ({ id }) => (await ask<VideoText>('GET', `/items/${id}/video`)).body),
    );
    expect(texts.map(({ captions, language, chapters }) => [captions, language, chapters.length])).toEqual([
      ['by hand', 'en', 6],
      ['by machine', 'en', 6],
      ['by hand', 'de', 5],
    ]);
    for (const { words, carries, lines } of texts) {
      expect(words).toBeGreaterThan(450);
      expect(carries).toBeLessThan(words);
      expect(lines.every(({ text }) => !/\[|\bum,/i.test(text))).toBe(true);
    }
    expect(texts[1]!.left.repeats).toBeGreaterThan(40);
  });

  test('a video without captions stops with that reason, and one put under a page without video is unusable', async () => {
    const source = await sourceOf({
      kind: 'videos',
      addresses: [at('/videos/watch/airlock-lids'), at('/sheets/stock')],
    });
    await look(source);
    const [, page] = await itemsOf(source);
    expect(page).toMatchObject({ leftOut: 'unusable', leftDetail: 'there is no video on that page' });
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [{ ...k.take.fresh('s1'), sources: [source], most: null }, k.read.fresh('s2')],
    };
    const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Reads', document })).body;
    const briefs = await take(id);
    expect(briefs).toHaveLength(1);
    await w.settled(briefs, ['stopped']);
    const [run] = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body.runs;
    expect(run!.failure).toMatchObject({ problem: 'No captions' });
  });

  test('uploaded captions are read as they are; what is no captions file says so', async () => {
    const uploaded = async (body: string) => ((await (await upload('text/vtt', body)).json()) as { file: string }).file;
    const cues = Array.from({ length: 60 }, (_, i) => {
      const time = (s: number) =>
        `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')},000`;
      return `9\n${time(i * 4)} --> ${time(i * 4 + 4)}\nWe weigh the salt for jar number ${i} and write it on the lid.`;
    });
    const captions = [
      { file: await uploaded(cues.join('\n\n')), fileName: 'Weighing_salt.srt' },
      { file: await uploaded('Dear Ines, the crocks have come.'), fileName: 'letter.txt' },
    ];
    const source = await sourceOf({ kind: 'videos', captions });
    await look(source);
    const [good, bad] = await itemsOf(source);
    expect([good!.subject, good!.leftOut, bad!.leftOut]).toEqual(['Weighing salt', null, 'unusable']);
    expect(bad!.leftDetail).toMatch(/holds no times/);
    const text = (await ask<VideoText>('GET', `/items/${good!.id}/video`)).body;
    expect([text.captions, text.lines.length, text.language]).toEqual(['uploaded', 60, 'en']);
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k.read.fresh('s2'), from: '01:00', to: '02:00' },
      ],
    };
    const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Captions', document })).body;
    const briefs = await take(id);
    await w.settled(briefs, ['out']);
    const [run] = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body.runs;
    expect((run!.gave as { spokenWords: number }).spokenWords).toBe(15 * 14);
  });

  test('becomes an article that follows its chapters, shows it and credits it; a chosen part uses that part alone', async () => {
    const source = await sourceOf({ kind: 'videos', addresses: [at('/videos/watch/salt-by-weight')] });
    await look(source);
    const made = SHIPPED.find(({ key }) => key === 'video')!.make({ source, blog: w.blog, language: 'en' });
    const document = {
      ...made,
      steps: made.steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'at once' as const } : step)),
    };
    const run = async (words: object) => {
      const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: 'Videos', document })).body;
      const [item] = await itemsOf(source);
      const [brief] = (
        await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, { items: [item!.id], ...words })
      ).body.briefs;
      await w.settled([brief!], ['out']);
      const [row] = await w.product.ground.db.rows<{ current: string; address: string }>(
        'SELECT a.current, p.address FROM article a JOIN publication p ON p.article = a.id WHERE a.brief = ?',
        [brief],
      );
      const runs = (await ask<BriefWhole>('GET', `/briefs/${brief}`)).body.runs;
      return {
        document: await readRevision(w.product.ground.db, row!.current),
        page: await (await fetch(row!.address)).text(),
        runs,
      };
    };
    const whole = await run({});
    const headings = whole.document.body.flatMap((block) => (block.type === 'heading' ? [block.text] : []));
    expect(headings.slice(0, 2)).toEqual(['Six spoons on a scale', 'Per cent of the whole jar']);
    expect(whole.document.body.filter(({ type }) => type === 'video')).toHaveLength(1);
    expect(whole.document.keyPhrase).not.toBe('');
    expect(whole.page).toContain('Crockhaven Bench');
    const paragraphs = whole.document.body.filter((block) => block.type === 'paragraph');
    expect(paragraphs.every((block) => (block.evidence?.length ?? 0) > 0)).toBe(true);
    const part = await run({ range: { from: 60, to: 200 } });
    const spoken = (runs: BriefWhole['runs']) =>
      (runs.find(({ kind }) => kind === 'read')!.gave as { spokenWords: number }).spokenWords;
    expect(spoken(part.runs)).toBeLessThan(spoken(whole.runs) / 1.8);
  });
});
