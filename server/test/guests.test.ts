import type { Comment, Share } from '@grivo/contract';
import { beforeAll, expect, test } from 'vitest';
import { articleTitled } from './ground/articles.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

const DAY = 86_400_000;

let desk: Desk;
let id: string;
let block: string;
atTheDesk((one) => {
  desk = one;
});

beforeAll(async () => {
  const { ask, w } = desk;
  const { body } = await ask<{ id: string }>('POST', '/articles', {
    blog: w.blog,
    title: 'Buckles that bite',
    text: 'A buckle of brass bites the strap.\n\nOne of steel rusts.',
  });
  await w.settled([body.id], ['held']);
  ({ id } = await articleTitled(ask, 'Buckles that bite'));
  const whole = await ask<{ document: { body: { id: string }[] } }>('GET', `/articles/${id}`);
  block = whole.body.document.body[0]!.id;
});

const shared = async (body: object) =>
  (await desk.ask<Share>('POST', `/articles/${id}/share`, body)).body.share!.address.replace(/^.*\/read\//, '/read/');
const visit = async (path: string) => {
  const answer = await fetch(desk.http.address + path, { headers: { accept: 'text/html' } });
  return { status: answer.status, text: await answer.text(), csp: answer.headers.get('content-security-policy') ?? '' };
};
const say = (path: string, fields: Record<string, string>) =>
  fetch(`${desk.http.address}${path}/comments`, {
    method: 'POST',
    redirect: 'manual',
    headers: { accept: 'text/html', origin: 'null', cookie: desk.cookie },
    body: new URLSearchParams({ block, words: 'Which brass?', name: 'Oda', ...fields }),
  });
const comments = async () => (await desk.ask<{ comments: Comment[] }>('GET', `/articles/${id}/comments`)).body.comments;

test('an address for reading alone has no form and takes nothing', async () => {
  const path = await shared({ days: 7 });
  const page = await visit(path);
  expect([page.status, page.text.includes('<form')]).toEqual([200, false]);
  expect(page.csp).toContain("form-action 'none'");
  expect((await say(path, {})).status).toBe(404);
  expect(await comments()).toEqual([]);
});

test('where it is allowed a reader without an account says something, which stands at its paragraph and on the page', async () => {
  const path = await shared({ days: 7, comments: true });
  const page = await visit(path);
  expect(page.csp).toContain('sandbox allow-forms');
  expect(page.csp).toContain("form-action 'self'");
  expect(page.text).toContain(`<option value="${block}">A buckle of brass bites the strap.</option>`);
  const said = await say(path, { words: ' Which <b>brass</b>? ' });
  expect([said.status, said.headers.get('location')]).toEqual([303, `${path}#said`]);
  await say(path, { words: 'And steel?', name: '' });
  expect((await comments()).map(({ person, words, mine, block: at }) => [person, words, mine, at])).toEqual([
    ['Oda, a guest', 'Which <b>brass</b>?', true, block],
    ['A reader, a guest', 'And steel?', true, block],
  ]);
  const { text } = await visit(path);
  expect(text).toContain(
    '<strong>Oda</strong> on ‘A buckle of brass bites the strap.’: Which &lt;b&gt;brass&lt;/b&gt;?',
  );
  // What is said inside the house stays there.
  await desk.ask('POST', `/articles/${id}/comments`, { block, words: 'Ask the saddler.' });
  expect((await visit(path)).text).not.toContain('saddler');
  const [first] = await comments();
  await desk.ask('PUT', `/articles/${id}/comments/${first!.id}`, { done: true });
  expect((await visit(path)).text).toContain('(done)');
  // A guest has no way to take it back: whoever looks after the article does.
  expect((await desk.ask('DELETE', `/articles/${id}/comments/${first!.id}`)).status).toBe(204);
  expect((await visit(path)).text).not.toContain('Oda');
});

test('what does not fit is refused as a page that says why, and nobody says more than ten things a minute', async () => {
  const path = await shared({ days: 7, comments: true });
  for (const fields of [{ words: '  ' }, { words: 'x'.repeat(2_001) }, { name: 'x'.repeat(61) }, { block: '../x' }]) {
    const refused = await say(path, fields);
    expect([refused.status, await refused.text()]).toEqual([
      422,
      expect.stringContaining('Something of it is missing'),
    ]);
  }
  const gone = await say(path, { block: 'b999' });
  expect([gone.status, await gone.text()]).toEqual([422, expect.stringContaining('was changed meanwhile')]);
  expect((await say(path, { words: 'x'.repeat(60_000) })).status).toBe(413);
  const statuses: number[] = [];
  for (let i = 0; i < 12; i++) statuses.push((await say(path, { words: `Again ${i}` })).status);
  expect(statuses.filter((status) => status === 303).length).toBeLessThanOrEqual(10);
  expect(statuses.at(-1)).toBe(429);
});

test('its end is obeyed, and so is taking it back: nothing is read there and nothing said', async () => {
  const path = await shared({ days: 1, comments: true });
  const before = (await comments()).length;
  await desk.ask('DELETE', `/articles/${id}/share`);
  expect([(await visit(path)).status, (await say(path, {})).status]).toEqual([404, 404]);
  const next = await shared({ days: 1, comments: true });
  expect(next).not.toBe(path);
  expect((await visit(next)).status).toBe(200);
  const { desk: clock } = desk.w.product.ground;
  await clock.set(clock.now() + 2 * DAY, 0);
  expect([(await visit(next)).status, (await say(next, {})).status]).toEqual([404, 404]);
  expect((await comments()).length).toBe(before);
});
