import {
  AnewPiece,
  type ArticleSaved,
  type ArticleWhole,
  type Comment,
  type Hold,
  type RevisionLine,
  TitlesPiece,
  WrittenAnew,
} from '@grivo/contract';
import { type ArticleDocument, articleText, type Block, blockText, type Step, stepKinds } from '@grivo/core';
import { createParser } from 'eventsource-parser';
import { beforeAll, describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';
import { connectedBy } from './ground/sites.ts';
import { LENIENT } from './ground/world.ts';

let w: Desk['w'];
let ask: Desk['ask'];
let http: Desk['http'];
let proofreader: Ask;
atTheDesk((desk) => ({ w, ask, http } = desk));
beforeAll(async () => {
  proofreader = await http.as('proofreader');
});

const k = stepKinds;
const paragraph = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });

/** An article laid out of a text, and published at once or as the steps say. */
async function article(
  title: string,
  steps: (take: Step, publish: Step) => Step[],
  standing: string,
): Promise<ArticleWhole> {
  const body = 'Weigh the salt.\n\nPress the cabbage.';
  const layOut = { ...k['lay out'].fresh('s2'), body, title, reads: 'Markdown' as const };
  const pipeline = await w.pipeline([title], (all) => {
    const [take, publish] = [all[0]!, { ...all.at(-1)!, id: 's9' } as Step];
    const [first, ...rest] = steps(take, publish);
    return [first!, layOut, ...rest];
  });
  const [brief] = await w.take(pipeline);
  if (standing === 'ready' || standing === 'waiting') await stands(brief!, standing);
  else await w.settled([brief!], [standing]);
  const [row] = await w.product.ground.db.rows<{ id: string }>("SELECT id FROM article WHERE brief = ? AND line = ''", [
    brief,
  ]);
  return read(row!.id);
}

/** Waits until an article has its slot, or a step of it waits for its time. */
async function stands(brief: string, what: 'ready' | 'waiting'): Promise<void> {
  const found = () =>
    w.product.ground.db.rows(
      what === 'ready'
        ? "SELECT 1 FROM step_run WHERE brief = ? AND state = 'waiting' AND for_slot = 1"
        : "SELECT 1 FROM step_run WHERE brief = ? AND state = 'waiting' AND for_slot = 0",
      [brief],
    );
  await expect.poll(async () => (await found()).length, { timeout: 20_000 }).toBe(1);
}

const inItsSlot = (publish: Step): Step => ({ ...publish, when: 'next free slot' }) as Step;
const atOnce = (publish: Step): Step => ({ ...publish, when: 'at once' }) as Step;
const read = async (id: string) => (await ask<ArticleWhole>('GET', `/articles/${id}`)).body;
const save = (id: string, base: string, document: ArticleDocument, who: Ask = ask, sitting = 'one') =>
  who<ArticleSaved>('PUT', `/articles/${id}/document`, { base, document, sitting });
const act = (article: ArticleWhole, what: string) =>
  ask<{ done: boolean }>('POST', `/articles/${article.id}/publications/${article.publications[0]!.id}`, {
    act: what,
    revision: article.revision,
  });
const revisionsOf = async (id: string) =>
  (await ask<{ revisions: RevisionLine[] }>('GET', `/articles/${id}/revisions`)).body.revisions;
const withFirst = (document: ArticleDocument, text: string): ArticleDocument => ({
  ...document,
  body: document.body.map((block, i) => (i === 0 ? paragraph(block.id, text) : block)),
});

describe('an article a person changes', () => {
  test('while it waits for its slot goes out as it was changed', async () => {
    const made = await article('Salted plums', (take, publish) => [take, inItsSlot(publish)], 'ready');
    expect(made).toMatchObject({ standing: 'ready', busy: null });
    const saved = await save(made.id, made.revision, withFirst(made.document, 'Weigh the salt twice.'));
    expect(saved.status).toBe(200);
    const now = await read(made.id);
    expect([now.revision, articleText(now.document)]).toEqual([
      saved.body.revision,
      'Weigh the salt twice.\n\nPress the cabbage.',
    ]);
    await w.product.ground.desk.set(now.dueDesk! + 1_000, 0);
    await w.product.ringAll();
    await w.settled([made.brief], ['out']);
    const out = await read(made.id);
    expect(await (await fetch(out.address!)).text()).toContain('Weigh the salt twice.');
    expect(out.publications).toMatchObject([{ state: 'live', newest: true, underWay: null }]);
  });

  test('while it is held counts for the steps that follow', async () => {
    const made = await article(
      'Salted pears',
      (take, publish) => [
        take,
        k.hold.fresh('s3'),
        {
          ...k.check.fresh('s4'),
          ...LENIENT,
          words: { from: 1, to: 100 },
          figures: false,
          must: ['twice'],
        } as unknown as Step,
        atOnce(publish),
      ],
      'held',
    );
    expect(made.standing).toBe('held');
    await save(made.id, made.revision, withFirst(made.document, 'Weigh the salt twice.'));
    const [hold] = (await ask<{ holds: Hold[] }>('GET', `/briefs/${made.brief}/holds`)).body.holds;
    expect((await ask('POST', `/briefs/${made.brief}/holds/${hold!.run}`, { decide: 'pass', change: {} })).status).toBe(
      204,
    );
    await w.settled([made.brief], ['out']);
    expect(articleText((await read(made.id)).document)).toContain('twice');
  });

  test('while a step is at it is refused with the reason, and nothing of it is kept', async () => {
    const made = await article(
      'Salted figs',
      (take, publish) => [take, { ...k.wait.fresh('s3'), minutes: 600 } as Step, atOnce(publish)],
      'waiting',
    );
    expect(made.busy).toMatch(/A step of its pipeline is at it/);
    const saved = await save(made.id, made.revision, withFirst(made.document, 'Never.'));
    expect([saved.status, saved.problem.title]).toEqual([409, 'A step is at it']);
    expect((await read(made.id)).revision).toBe(made.revision);
  });

  test('meanwhile by somebody else is refused, with both unharmed', async () => {
    const made = await article('Salted quinces', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const mine = await save(made.id, made.revision, withFirst(made.document, 'Mine.'));
    const theirs = await save(made.id, made.revision, withFirst(made.document, 'Theirs.'), proofreader);
    expect([mine.status, theirs.status, theirs.problem.title]).toEqual([200, 412, 'Changed meanwhile']);
    expect(articleText((await read(made.id)).document)).toContain('Mine.');
  });

  test('in a row at one sitting is one revision; the next sitting, or another person, begins the next', async () => {
    const made = await article('Salted medlars', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const before = (await revisionsOf(made.id)).length;
    let { revision } = made;
    for (const [n, sitting] of ['one', 'one', 'one', 'two'].entries()) {
      const saved = await save(made.id, revision, withFirst(made.document, `Turn ${n}.`), ask, sitting);
      expect(saved.body.revision > revision).toBe(true);
      ({ revision } = saved.body);
    }
    const all = await revisionsOf(made.id);
    expect(all.slice(0, all.length - before).map(({ person, step, current }) => [person, step, current])).toEqual([
      ['editor', null, true],
      ['editor', null, false],
    ]);
    const same = await save(made.id, revision, withFirst(made.document, 'Turn 3.'), ask, 'three');
    expect(same.body.revision).toBe(revision);
    const old = await ask<ArticleDocument>('GET', `/articles/${made.id}/revisions/${all[1]!.id}`);
    expect(articleText(old.body)).toContain('Turn 2.');
    const elsewhere = await article('Salted sloes', (take, publish) => [take, inItsSlot(publish)], 'ready');
    expect((await ask('GET', `/articles/${elsewhere.id}/revisions/${revision}`)).status).toBe(404);
  });

  test('with words somebody answers for is answered for by them, whoever is named, and kept as it was said before', async () => {
    const made = await article('Salted greengages', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const vouching = (document: ArticleDocument, by: string, ...words: string[]): ArticleDocument => ({
      ...document,
      body: document.body.map((block, i) =>
        i === 0 ? { ...block, vouched: words.map((one) => ({ words: one, reason: 'I weighed it', by })) } : block,
      ),
    });
    const first = await save(made.id, made.revision, vouching(made.document, 'somebody else', 'salt'));
    const said = ({ body }: ArticleDocument) => body[0]!.vouched!.map(({ words, by }) => [words, by]);
    expect(said(first.body.document)).toEqual([['salt', 'editor']]);
    const own = vouching(first.body.document, 'editor', 'salt', 'Weigh');
    const next = await save(made.id, first.body.revision, own, proofreader);
    expect(said(next.body.document)).toEqual([
      ['salt', 'editor'],
      ['Weigh', 'proofreader'],
    ]);
    const bare = vouching(made.document, 'x', 'salt');
    bare.body[0]!.vouched![0]!.reason = ' ';
    expect((await save(made.id, next.body.revision, bare)).status).toBe(422);
  });

  test('with what cannot stand in an article is refused, and says what', async () => {
    const made = await article('Salted damsons', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const twice = { ...made.document, body: [paragraph('a', 'One.'), paragraph('a', 'Two.')] };
    const picture: Block = {
      type: 'figure',
      id: 'f',
      file: 'b'.repeat(64),
      width: 1,
      height: 1,
      alternative: '',
      lead: false,
    };
    const markup: Block = { type: "owner's markup", id: 'm', markup: '<script>1</script>' };
    const unfit = await save(made.id, made.revision, twice);
    expect([unfit.status, unfit.problem.detail]).toEqual([422, 'Two blocks are called ‘a’.']);
    const lacking = await save(made.id, made.revision, { ...made.document, body: [picture] });
    expect([lacking.status, lacking.problem.title]).toEqual([422, 'No such picture']);
    const put = { ...made.document, body: [markup] };
    expect((await save(made.id, made.revision, put, http.stranger)).status).toBe(401);
    expect((await save(made.id, made.revision, put, proofreader)).status).toBe(403);
    const bare = { ...made.document, body: [...made.document.body, paragraph('e', '  ')] };
    expect((await save(made.id, made.revision, bare)).body.document.body).toHaveLength(2);
  });
});

describe('an article on a blog', () => {
  test('changed here stays there as it was until somebody brings it; taken away and put there again it is at another address', async () => {
    const made = await article('Salted cherries', (take, publish) => [take, atOnce(publish)], 'out');
    expect(made.publications).toMatchObject([{ state: 'live', newest: true, can: ['update', 'withdraw'] }]);
    const address = made.address!;
    await save(made.id, made.revision, withFirst(made.document, 'Stone them first.'));
    let now = await read(made.id);
    expect(now.publications).toMatchObject([{ newest: false }]);
    expect(await (await fetch(address)).text()).not.toContain('Stone them first.');
    expect((await act({ ...now, revision: made.revision }, 'update')).status).toBe(412);
    expect((await act(now, 'update')).body).toEqual({ done: true });
    expect(await (await fetch(address)).text()).toContain('Stone them first.');
    expect((await act(now, 'update')).body).toEqual({ done: true });
    expect((await read(made.id)).publications).toMatchObject([{ newest: true }]);
    expect((await act(now, 'withdraw')).body).toEqual({ done: true });
    expect((await fetch(address)).status).toBeGreaterThanOrEqual(404);
    now = await read(made.id);
    expect(now).toMatchObject({ standing: 'withdrawn', publications: [{ state: 'withdrawn', newest: null, can: [] }] });
    expect((await act(now, 'update')).status).toBe(409);
    expect((await act(now, 'publish')).body).toEqual({ done: true });
    now = await read(made.id);
    expect(now.standing).toBe('out');
    expect(now.address).not.toBe(address);
    expect(await (await fetch(now.address!)).text()).toContain('Stone them first.');
    // What was out is kept as it was: another change is another revision, at the same sitting too.
    const before = await revisionsOf(made.id);
    await save(made.id, now.revision, withFirst(now.document, 'Stone them last.'));
    expect(await revisionsOf(made.id)).toHaveLength(before.length + 1);
  });

  test('that refuses says why, and the same act done again is done once', async () => {
    const made = await article('Salted grapes', (take, publish) => [take, atOnce(publish)], 'out');
    await save(made.id, made.revision, withFirst(made.document, 'Off the stalk.'));
    const now = await read(made.id);
    w.standIns.trouble('blog', { how: 'key refused' }, 1, '/micropub');
    const refused = await act(now, 'update');
    expect([refused.status, refused.problem.title]).toEqual([502, 'The blog did not do it']);
    expect(refused.problem.mend).not.toBe('');
    expect((await act(now, 'update')).body).toEqual({ done: true });
    expect(await (await fetch(made.address!)).text()).toContain('Off the stalk.');
  });
});

describe('a part written anew', () => {
  test('is said at its price, comes in the length asked for on what the article rests on, and changes nothing by itself', async () => {
    const pipeline = await w.pipeline(['salt for sauerkraut'], (steps) => [
      ...steps.filter(({ kind }) => ['take', 'look up', 'outline', 'write', 'title'].includes(kind)),
      inItsSlot(steps.at(-1)!),
    ]);
    const [brief] = await w.take(pipeline);
    await stands(brief!, 'ready');
    const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
    const made = await read(row!.id);
    const long = made.document.body.find((block) => block.type === 'paragraph' && (block.evidence?.length ?? 0) > 0)!;
    const body = { document: made.document, blocks: [long.id], note: 'shorter, please' };
    const price = await ask<{ micros: number }>('POST', `/articles/${made.id}/anew/price`, body);
    expect(price.body.micros).toBeGreaterThan(0);
    const spent = async () => (await read(made.id)).micros;
    const before = await spent();
    const written = await ask<WrittenAnew>('POST', `/articles/${made.id}/anew`, body);
    expect(written.status).toBe(200);
    const { blocks, micros } = written.body;
    const words = (all: readonly Block[]) => articleText({ body: [...all] }).split(/\s+/).length;
    expect(words(blocks)).toBeLessThan(words([long]));
    expect(blocks.flatMap(({ evidence }) => evidence ?? [])).not.toEqual([]);
    const ids = new Set(made.document.body.map(({ id }) => id));
    expect(blocks.some(({ id }) => ids.has(id))).toBe(false);
    // It is in the books of the article, and not far from what was said.
    expect(await spent()).toBe(before + micros);
    expect(micros / price.body.micros).toBeGreaterThan(0.2);
    expect(micros / price.body.micros).toBeLessThan(3);
    expect((await read(made.id)).revision).toBe(made.revision);
    expect((await ask('POST', `/articles/${made.id}/anew`, { ...body, note: ' ' })).status).toBe(422);
    const none = await ask('POST', `/articles/${made.id}/anew`, { ...body, blocks: ['nowhere'] });
    expect([none.status, none.problem.title]).toEqual([422, 'Cannot be written anew']);
    expect((await proofreader('POST', `/articles/${made.id}/anew`, body)).status).toBe(403);
    w.standIns.trouble('writer', { how: 'key refused' }, 1);
    const refused = await ask('POST', `/articles/${made.id}/anew`, { ...body, note: 'longer' });
    expect([refused.status, refused.problem.title]).toEqual([502, 'Not written']);
  });
});

describe('what is written anew', () => {
  /** The events of an answer, by their names, each with its data. */
  const eventsOf = async (path: string, body: unknown, key: string) => {
    const response = await fetch(`${http.address}/api${path}`, {
      method: 'POST',
      headers: {
        cookie: (ask as Ask & { cookie: string }).cookie,
        'content-type': 'application/json',
        accept: 'text/event-stream',
        'idempotency-key': key,
      },
      body: JSON.stringify(body),
    });
    const events: [string, unknown][] = [];
    const parser = createParser({ onEvent: ({ event = '', data }) => events.push([event, JSON.parse(data)]) });
    parser.feed(await response.text());
    return { status: response.status, type: response.headers.get('content-type'), events };
  };

  test('is told while it is written, and is the same in the end; what goes wrong on the way is said there', async () => {
    const pipeline = await w.pipeline(['how much salt for sauerkraut'], (steps) => [
      ...steps.filter(({ kind }) => ['take', 'look up', 'outline', 'write', 'title'].includes(kind)),
      inItsSlot(steps.at(-1)!),
    ]);
    const [brief] = await w.take(pipeline);
    await stands(brief!, 'ready');
    const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
    const { id, document } = await read(row!.id);
    const blocks = document.body
      .filter((block) => block.type === 'paragraph' && (block.evidence?.length ?? 0) > 0)
      .map((block) => block.id)
      .slice(0, 3);
    const path = `/articles/${id}/anew`;
    const body = { document, blocks, note: 'plainer words' };

    w.standIns.trouble('writer', { how: 'slowly', ms: 80 }, 1);
    const heard = await eventsOf(path, body, 'heard-1');
    expect([heard.status, heard.type]).toEqual([200, 'text/event-stream']);
    const pieces = heard.events.filter(([name]) => name === 'piece').map(([, data]) => AnewPiece.parse(data).text);
    expect(pieces.length).toBeGreaterThan(2);
    const [name, data] = heard.events.at(-1)!;
    expect(name).toBe('answer');
    const written = WrittenAnew.parse(data);
    const whole = articleText({ body: [...written.blocks] });
    // Each goes on from the one before, as far as marks put between blocks do not matter.
    const letters = (text: string) => text.replace(/[^\p{L}\p{N}]/gu, '');
    for (const [n, text] of pieces.entries())
      expect(letters(pieces[n + 1] ?? whole).startsWith(letters(text))).toBe(true);
    // Repeated with its key it is the same answer, without its pieces.
    expect((await eventsOf(path, body, 'heard-1')).events).toEqual([['answer', data]]);

    w.standIns.trouble('writer', { how: 'slowly', ms: 80 }, 1);
    const titles = await eventsOf(`${path}/title`, { document, note: 'as a question' }, 'heard-2');
    expect(
      titles.events.some(([event, piece]) => event === 'piece' && TitlesPiece.parse(piece).titles.length > 0),
    ).toBe(true);
    expect(titles.events.at(-1)![0]).toBe('answer');

    // Broken off in the middle: what had come is no answer, and the key may be used again.
    const other = { ...body, note: 'with the figure' };
    w.standIns.trouble('writer', { how: 'cut within' }, 1);
    const broken = await eventsOf(path, other, 'heard-3');
    expect([broken.status, broken.events.at(-1)![0]]).toEqual([200, 'problem']);
    expect(broken.events.at(-1)![1]).toMatchObject({ status: 502, title: 'Not written' });
    expect((await eventsOf(path, other, 'heard-3')).events.at(-1)![0]).toBe('answer');
    // What fails before anything is written is a problem as any other.
    const none = await eventsOf(path, { ...body, blocks: ['nowhere'] }, 'heard-4');
    expect([none.status, none.type]).toEqual([422, expect.stringContaining('application/problem+json')]);
  });
});

describe('words and titles written anew', () => {
  test('of a paragraph only the words picked change; other titles come at their price, each of a length a title has', async () => {
    const pipeline = await w.pipeline(['how to clean a crock'], (steps) => [
      ...steps.filter(({ kind }) => ['take', 'look up', 'outline', 'write', 'title'].includes(kind)),
      inItsSlot(steps.at(-1)!),
    ]);
    const [brief] = await w.take(pipeline);
    await stands(brief!, 'ready');
    const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
    const { id, document, revision } = await read(row!.id);
    const long = document.body.find(
      (block) => block.type === 'paragraph' && (block.evidence?.length ?? 0) > 0 && blockText(block).includes('. '),
    )!;
    const text = blockText(long);
    const letters = { from: 0, to: text.indexOf('. ') + 1 };
    const body = { document, blocks: [long.id], letters, note: 'plainer words' };
    const written = await ask<WrittenAnew>('POST', `/articles/${id}/anew`, body);
    expect(written.status).toBe(200);
    const [only, ...more] = written.body.blocks;
    expect(more).toEqual([]);
    expect(blockText(only!).endsWith(text.slice(letters.to))).toBe(true);
    const rests = ({ evidence }: Block) => (evidence ?? []).map(({ passage }) => passage);
    expect(rests(only!)).toEqual(expect.arrayContaining(rests(long)));
    const heading = document.body.find(({ type }) => type === 'heading')!;
    const none = await ask('POST', `/articles/${id}/anew`, { ...body, blocks: [long.id, heading.id] });
    expect([none.status, none.problem.detail]).toEqual([422, expect.stringContaining('within one paragraph')]);

    const wish = { document, note: 'as a question' };
    const price = await ask<{ micros: number }>('POST', `/articles/${id}/anew/title/price`, wish);
    const before = (await read(id)).micros;
    const titles = await ask<{ titles: string[]; micros: number }>('POST', `/articles/${id}/anew/title`, wish);
    expect(titles.status).toBe(200);
    expect(titles.body.titles.length).toBeGreaterThan(1);
    for (const title of titles.body.titles) expect(title.length).toBeLessThanOrEqual(70);
    expect(titles.body.micros / price.body.micros).toBeGreaterThan(0.2);
    expect(titles.body.micros / price.body.micros).toBeLessThan(3);
    const after = await read(id);
    expect([after.micros, after.revision]).toEqual([before + titles.body.micros, revision]);
    expect((await proofreader('POST', `/articles/${id}/anew/title`, wish)).status).toBe(403);
    w.standIns.trouble('writer', { how: 'key refused' }, 1);
    expect((await ask('POST', `/articles/${id}/anew/title`, { ...wish, note: 'shorter' })).status).toBe(502);
  });
});

describe('an article that is edited as a text', () => {
  test('as Markdown: keeps what its paragraphs rest on, says what cannot be read, and loses nothing to another', async () => {
    const made = await article('Salted quinces', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const path = `/articles/${made.id}/editable`;
    const { body: was } = await ask<{ revision: string; text: string; language: string }>('GET', path);
    expect(was).toMatchObject({ revision: made.revision, language: made.language });
    const [resting] = made.document.body;
    const put = (text: string, base = was.revision, who: Ask = ask) =>
      who<ArticleSaved>('PUT', path, { base, text, sitting: 'md' });
    const saved = await put(`${was.text}\n\n## Afterwards\n\nA cellar of ten degrees keeps them.`);
    expect(saved.status).toBe(200);
    const after = (await read(made.id)).document;
    expect(after.body[0]).toEqual(resting);
    expect(articleText(after)).toContain('A cellar of ten degrees keeps them.');
    expect((await revisionsOf(made.id))[0]).toMatchObject({ current: true, person: 'editor' });
    // Somebody who began before that.
    const late = await put('Only this.', was.revision, proofreader);
    expect([late.status, late.problem.title]).toEqual([412, 'Changed meanwhile']);
    const unread = await put(':::table\n| a |', saved.body.revision);
    expect([unread.status, unread.problem.places?.[0]?.place]).toEqual([422, 'text']);
    expect((await put('x'.repeat(400_001), saved.body.revision)).status).toBe(422);
    expect((await read(made.id)).revision).toBe(saved.body.revision);
  });

  test('and as HTML: what stays is as it was, a changed word is one of its block, a script is refused', async () => {
    const made = await article('Quinces in brine', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const path = `/articles/${made.id}/editable`;
    const { body: was } = await ask<{ revision: string; text: string }>('GET', `${path}?as=html`);
    const [first] = made.document.body;
    expect(was.text).toContain(`data-block="${first!.id}"`);
    const put = (text: string) =>
      ask<ArticleSaved>('PUT', path, { base: was.revision, as: 'html', text, sitting: 'html' });
    const refused = await put(`${was.text}<script>alert(1)</script>`);
    expect([refused.status, refused.problem.places?.[0]?.place]).toEqual([422, 'text']);
    const saved = await put(`${was.text}\n<p>A cellar of <strong>ten</strong> degrees keeps them.</p>`);
    expect(saved.status).toBe(200);
    const { body } = (await read(made.id)).document;
    expect(body.slice(0, -1)).toEqual(made.document.body);
    expect(body.at(-1)).toMatchObject({ type: 'paragraph', content: [{}, { text: 'ten', marks: ['strong'] }, {}] });
  });
});

describe('an article somebody writes themselves', () => {
  test('is laid out as it stands, waits for them, and goes out in a slot once it is passed; the next goes the same way', async () => {
    const own = (title: string) => ({
      blog: w.blog,
      title,
      text: `{{ ${title} }} wants *patience*.\n\n## Bows\n\n- One\n- Two`,
    });
    const begun = await ask<{ id: string }>('POST', '/articles', own('Bowing by hand'));
    expect(begun.status).toBe(201);
    await w.settled([begun.body.id], ['held']);
    const articleOf = async (brief: string) =>
      read((await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]))[0]!.id);
    const made = await articleOf(begun.body.id);
    expect(made).toMatchObject({ title: 'Bowing by hand', standing: 'held', busy: null, doubts: [] });
    expect(articleText(made.document)).toBe('{{ Bowing by hand }} wants patience.\n\nBows\n\nOne\nTwo');
    const [hold] = (await ask<{ holds: Hold[] }>('GET', `/briefs/${begun.body.id}/holds`)).body.holds;
    await ask('POST', `/briefs/${begun.body.id}/holds/${hold!.run}`, { decide: 'pass', change: {} });
    await stands(begun.body.id, 'ready');
    const next = await ask<{ id: string }>('POST', '/articles', own('Plucking by hand'));
    await w.settled([next.body.id], ['held']);
    const rows = await w.product.ground.db.rows<{ pipeline: string }>('SELECT pipeline FROM brief WHERE id IN (?)', [
      [begun.body.id, next.body.id],
    ]);
    expect(new Set(rows.map(({ pipeline }) => pipeline)).size).toBe(1);
    expect((await ask('POST', '/articles', { ...own('x'), blog: 'z'.repeat(20) })).status).toBe(404);
    expect((await ask('POST', '/articles', { ...own('x'), text: '  ' })).status).toBe(422);
    expect((await proofreader('POST', '/articles', own('x'))).status).toBe(403);
  });
});

describe('what people say of an article', () => {
  test('is said at a paragraph, done, taken back by who said it, and goes with the article', async () => {
    const made = await article('Salted apricots', (take, publish) => [take, atOnce(publish)], 'out');
    const path = `/articles/${made.id}/comments`;
    const block = made.document.body[0]!.id;
    const said = await ask<{ id: string }>('POST', path, { block, words: ' Twice? ' });
    await proofreader('POST', path, { block, words: 'Yes, twice.' });
    const all = async (who: Ask = ask) => (await who<{ comments: Comment[] }>('GET', path)).body.comments;
    expect((await all()).map(({ person, words, done, mine }) => [person, words, done, mine])).toEqual([
      ['editor', 'Twice?', false, true],
      ['proofreader', 'Yes, twice.', false, false],
    ]);
    expect((await proofreader('PUT', `${path}/${said.body.id}`, { done: true })).status).toBe(204);
    expect((await all()).map(({ done }) => done)).toEqual([true, false]);
    expect((await proofreader('DELETE', `${path}/${said.body.id}`)).status).toBe(403);
    expect((await ask('DELETE', `${path}/${said.body.id}`)).status).toBe(204);
    expect(await all(proofreader)).toMatchObject([{ words: 'Yes, twice.', mine: true }]);
    expect((await ask('POST', path, { block, words: ' ' })).status).toBe(422);
    expect((await ask('POST', path, { block: '../x', words: 'x' })).status).toBe(422);
    expect((await ask('PUT', `${path}/${said.body.id}`, { done: true })).status).toBe(404);
    expect((await http.stranger('GET', path)).status).toBe(401);
    expect((await ask('DELETE', `/articles/${made.id}`)).status).toBe(204);
    const left = await w.product.ground.db.rows('SELECT 1 FROM comment WHERE article = ?', [made.id]);
    expect(left).toEqual([]);
  });
});

describe('an article a person puts on a further blog', () => {
  const put = (it: ArticleWhole, blog: string, more: object = {}, who: Ask = ask) =>
    who<{ done: boolean }>('POST', `/articles/${it.id}/publications`, { blog, revision: it.revision, ...more });

  test('is out there once, however often it is pressed, and is taken back there', async () => {
    const second = await connectedBy(w, 'micropub', { name: 'Kitchen beside' });
    const made = await article('Salted quinces', (take, publish) => [take, atOnce(publish)], 'out');
    const both = await Promise.all([put(made, second), put(made, second)]);
    expect(both.map(({ status }) => status).sort()).toContain(200);
    const now = await read(made.id);
    expect(now.publications.map(({ blog, state }) => [blog, state])).toEqual(
      expect.arrayContaining([
        [w.blog, 'live'],
        [second, 'live'],
      ]),
    );
    const there = now.publications.find(({ blog }) => blog === second)!;
    const post = await (await fetch(there.address!)).text();
    expect(post).toContain('Press the cabbage.');
    const kitchen = w.standIns
      .received()
      .posts('kitchen')
      .filter(({ name }) => name === 'Salted quinces');
    expect(kitchen).toHaveLength(1);
    expect((await put(now, second)).status).toBe(409);
    const back = await ask('POST', `/articles/${made.id}/publications/${there.id}`, {
      act: 'withdraw',
      revision: now.revision,
    });
    expect(back.status).toBe(200);
    expect((await put(await read(made.id), second)).problem.title).toBe('There already');
  });

  test('goes out though its own steps still hold it; as a draft nobody sees it; old texts and strangers are refused', async () => {
    const draft = await connectedBy(w, 'micropub', { name: 'Drafts beside' });
    const made = await article(
      'Salted medlars',
      (take, publish) => [take, k.hold.fresh('s3'), atOnce(publish)],
      'held',
    );
    expect((await put(made, draft, { as: 'draft' })).body).toEqual({ done: true });
    expect((await read(made.id)).publications.find(({ blog }) => blog === draft)?.state).toBe('draft');
    expect((await put(made, w.blog, { revision: 'x'.repeat(20) })).status).toBe(412);
    expect((await put(made, 'x'.repeat(20))).status).toBe(404);
    expect((await put(made, w.blog, {}, proofreader)).status).toBe(403);
    expect((await put(made, w.blog)).body).toEqual({ done: true });
    // Its own step finds it there.
    const [hold] = (await ask<{ holds: Hold[] }>('GET', `/briefs/${made.brief}/holds`)).body.holds;
    await ask('POST', `/briefs/${made.brief}/holds/${hold!.run}`, { decide: 'pass', change: {} });
    await w.settled([made.brief], ['out']);
    expect(
      w.standIns
        .received()
        .posts('journal')
        .filter(({ name }) => name === 'Salted medlars'),
    ).toHaveLength(1);
  });

  test('before its slot frees the slot, and its brief is out; one that is put away takes nothing', async () => {
    const made = await article('Salted sloes', (take, publish) => [take, inItsSlot(publish)], 'ready');
    const slots = () =>
      w.product.ground.db.rows('SELECT 1 FROM placement WHERE article = ? AND blog = ?', [made.id, w.blog]);
    expect(await slots()).toHaveLength(1);
    const second = await connectedBy(w, 'micropub', { name: 'Beside its slot' });
    expect((await put(made, second)).body).toEqual({ done: true });
    // On another blog it leaves its slot here alone.
    expect(await slots()).toHaveLength(1);
    expect((await put(made, w.blog)).body).toEqual({ done: true });
    expect(await slots()).toEqual([]);
    await w.settled([made.brief], ['out']);
    const third = await connectedBy(w, 'micropub', { name: 'Away beside' });
    await w.product.ground.db.run('UPDATE blog SET archived = 1 WHERE id = ?', [third]);
    expect((await put(made, third)).problem.title).toBe('Put away');
  });
});
