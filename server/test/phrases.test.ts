import { stepKinds as k, type ProcedureDocument } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((opened) => {
  desk = opened;
  ({ w, ask } = opened);
});
const { itemsOf, sourceOf, offered, wholeSource, taker, take, writtenBack } = intakeAt(() => desk);

/** An article that stands, under a title of its own. */
async function articleOn(phrase: string, title: string): Promise<void> {
  const source = await sourceOf({ kind: 'keywords' });
  await ask('POST', `/sources/${source}/keywords`, { paste: phrase });
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      { ...k['lay out'].fresh('s2'), title, body: 'Weigh it.' },
    ],
  };
  const { body } = await ask<{ id: string }>('POST', '/pipelines', { name: title, document });
  await w.settled(await take(body.id), ['out']);
}

describe('phrases', () => {
  test('with words left out are left out, also those that come later, and a person brings one back; answered ones are marked', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    const paste = (text: string) => ask('POST', `/sources/${source}/keywords`, { paste: text });
    await paste('pickle crock near me\nhow much salt for kimchi\nsalt by weight never by spoon');
    const { rev, settings } = await wholeSource(source);
    const put = await ask(
      'PUT',
      `/sources/${source}`,
      { settings: { ...settings, exclude: ['Near me'] } },
      { 'if-match': `"${rev}"` },
    );
    expect(put.status).toBe(200);
    await paste('second hand crock near me');
    const left = (await itemsOf(source)).filter(({ leftOut }) => leftOut !== null);
    expect(left.map(({ subject, leftOut, leftDetail }) => [subject, leftOut, leftDetail])).toEqual([
      ['pickle crock near me', 'filtered', 'Near me'],
      ['second hand crock near me', 'filtered', 'Near me'],
    ]);
    await ask('POST', `/sources/${source}/offer`, { items: [left[0]!.id], offer: true });
    expect((await offered(source)).map(({ subject }) => subject)).toContain('pickle crock near me');
    expect((await itemsOf(source)).map(({ answeredBy }) => answeredBy)).toEqual([null, null, null, null]);
    await articleOn('salt by weight', 'Salt by weight, and never by the spoon');
    const answered = (await itemsOf(source)).filter(({ answeredBy }) => answeredBy !== null);
    expect(answered.map(({ subject }) => subject)).toEqual(['salt by weight never by spoon']);
    const stale = await ask('PUT', `/sources/${source}`, { settings }, { 'if-match': `"${rev}"` });
    expect(stale.status).toBe(412);
  });
});

describe('what a file knows of phrases', () => {
  const measured = (phrase: string, volume: number | null, difficulty: number | null = null) => ({
    phrase,
    volume,
    difficulty,
  });
  const add = async (source: string, ...phrases: object[]) =>
    (await ask<{ added: number; measured: number }>('POST', `/sources/${source}/keywords`, { phrases })).body;
  const figures = async (source: string) =>
    (await itemsOf(source)).map(({ subject, volume, difficulty }) => [subject, volume, difficulty]);

  test('stays with them, commas and all, and newer figures replace older ones', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    expect(
      await add(
        source,
        measured('salt, how much for kraut', 880, 30),
        measured('kahm yeast', 90),
        measured('kahm yeast', 5),
      ),
    ).toMatchObject({ added: 2, measured: 0 });
    expect(await figures(source)).toEqual([
      ['salt, how much for kraut', 880, 30],
      ['kahm yeast', 90, null],
    ]);
    expect(
      await add(source, measured('Kahm Yeast', 110, 12), measured('salt, how much for kraut', null)),
    ).toMatchObject({
      added: 0,
      measured: 1,
    });
    expect(await figures(source)).toEqual([
      ['salt, how much for kraut', 880, 30],
      ['kahm yeast', 110, 12],
    ]);
  });

  test('comes out as CSV with what was made of each, and can be read in again', async () => {
    const source = await sourceOf({ kind: 'keywords' }, 'Salt & more');
    await add(source, measured('=salt, how much', 880, 30), measured('kahm yeast', null));
    const [first] = await itemsOf(source);
    await ask('POST', `/pipelines/${await taker(source)}/take`, { items: [first!.id] });
    const answer = await writtenBack(source);
    expect(answer.headers.get('content-disposition')).toBe('attachment; filename="salt-more.csv"');
    const [head, ...lines] = (await answer.text()).split('\r\n');
    expect(head).toBe('phrase,volume,difficulty,opportunity,left out,standing,article,address,out on');
    expect(lines[0]).toMatch(/^"'=salt, how much",880,30,616,,(?:waiting|in work|out),,,$/);
    expect(lines.slice(1)).toEqual(['kahm yeast,,,,,,,,', '']);
  });

  test('goes with the brief, so that a procedure can go by it', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    await add(source, measured('crock with a water rim', 880, 30), measured('jar with a wire clip', 10, 5));
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        {
          ...k.when.fresh('w1'),
          tests: [{ field: 'volume', is: 'above', value: '100' }],
          holds: [{ ...k['work out'].fresh('w2'), as: 'size', expression: "'much'" }],
          otherwise: [{ ...k['work out'].fresh('w3'), as: 'size', expression: "'little'" }],
        },
        {
          ...k['lay out'].fresh('s2'),
          title: '{{ size }} sought',
          body: '{{ volume }} a month, difficulty {{ difficulty }}.',
        },
      ],
    };
    const { body } = await ask<{ id: string }>('POST', '/pipelines', { name: 'By volume', document });
    const briefs = await take(body.id);
    await w.settled(briefs, ['out']);
    const titles = await w.product.ground.db.rows<{ title: string }>('SELECT title FROM article WHERE brief IN (?)', [
      briefs,
    ]);
    expect(titles.map(({ title }) => title).sort()).toEqual(['little sought', 'much sought']);
  });

  test('is refused where it is no figure', async () => {
    const source = await sourceOf({ kind: 'keywords' });
    const refused = await ask('POST', `/sources/${source}/keywords`, { phrases: [measured('salt', -1)] });
    expect([refused.status, refused.problem.detail]).toEqual([422, expect.stringContaining('phrases.0.volume')]);
  });

  test('lines may be titles or descriptions: separated by lines only, a title stays the article’s', async () => {
    const list = async (lines: 'titles' | 'descriptions', paste: string) => {
      const source = await sourceOf({ kind: 'keywords', lines });
      await ask('POST', `/sources/${source}/keywords`, { paste });
      return source;
    };
    const titles = await list('titles', 'Salt, brine and crocks: a start\nGlass, stone or a bag');
    expect((await itemsOf(titles)).map(({ subject }) => subject)).toEqual([
      'Salt, brine and crocks: a start',
      'Glass, stone or a bag',
    ]);
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [titles], most: 1 },
        { ...k['lay out'].fresh('s2'), title: 'Another', body: 'Weigh it, and write down what it weighed. '.repeat(9) },
        k.title.fresh('s3'),
      ],
    };
    const made = await ask<{ id: string }>('POST', '/pipelines', { name: 'Titles', document });
    const briefs = await take(made.body.id);
    await w.settled(briefs, ['out', 'ready']);
    const { articles } = (await ask<{ articles: { title: string }[] }>('GET', '/articles?limit=1')).body;
    expect(articles[0]?.title).toBe('Salt, brine and crocks: a start');
    const long = `A piece for beginners, ${'with all they ask; '.repeat(15)}and no more`;
    const [item] = await itemsOf(await list('descriptions', long));
    expect(item?.subject).toBe(long);
  });
});
