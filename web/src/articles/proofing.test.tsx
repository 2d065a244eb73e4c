// @vitest-environment jsdom
import type { ArticleWhole, Hold, PublicationLine, RevisionLine } from '@grivo/contract';
import { type Block, EMPTY_ARTICLE } from '@grivo/core';
import { screen, waitFor, within } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { articleWhole, blog, HOUR, id, NOW } from '../testing/samples.ts';
import { Decide, useHold } from './Decide.tsx';
import { useDecisions } from './decisions.ts';
import { WriteOne } from './list/WriteOne.tsx';
import { NotTaken } from './NotTaken.tsx';
import { OnBlogs } from './OnBlogs.tsx';
import { Revisions } from './Revisions.tsx';

beforeEach(() => {
  queryClient.setDefaultOptions({ queries: { retry: false } });
  useDecisions.setState({ going: [], notTaken: [] });
});

function Here() {
  const { pathname, search } = useLocation();
  return <output aria-label="here">{`${pathname}${search}`}</output>;
}
const here = () => screen.getByRole('status', { name: 'here' }).textContent;

const A = id('a');
const paragraph = (name: string, text: string): Block => ({ type: 'paragraph', id: name, content: [{ text }] });
const whole = (change: Partial<ArticleWhole> = {}): ArticleWhole =>
  articleWhole({
    standing: 'held',
    document: { ...EMPTY_ARTICLE, title: 'Gut or steel', body: [paragraph('p', 'Gut answers sooner.')] },
    ...change,
  });
const hold = (change: Partial<Hold> = {}): Hold => ({
  run: id('r'),
  brief: whole().brief,
  pipeline: id('p'),
  pipelineName: 'Guides',
  subject: 'gut or steel',
  kind: 'hold',
  path: 's3',
  proposed: { asked: { for: 'me', note: 'Is it right' } },
  heldAt: '2026-05-04T08:00:00Z',
  ...change,
});

describe('a word on what waits', () => {
  const shown = (one = hold(), article_ = whole(), next: string | null = id('n'), more: Record<string, Answer> = {}) =>
    onScreen(
      <>
        <Decide article={article_} hold={one} next={next} now={NOW} onDecided={() => undefined} />
        <NotTaken />
        <Here />
      </>,
      { [`POST /briefs/${one.brief}/holds/${one.run}`]: () => undefined, ...more },
    );

  it.each([
    ['p', { decide: 'pass', change: {} }],
    ['x', { decide: 'set aside' }],
  ])('one key, %s, is said and leads to the next that waits', async (key, said) => {
    const { hands, asked } = shown();
    await hands.keyboard(key);
    await waitFor(() => expect(here()).toBe(`/articles/${id('n')}?held`));
    expect(asked.map(({ body }) => body)).toEqual([said]);
  });

  it('who goes on is not kept waiting, and a word that was not taken is said with the way back', async () => {
    let answer: (() => void) | null = null;
    const path = `POST /briefs/${hold().brief}/holds/${hold().run}`;
    const refused = new Promise<void>((resolve) => {
      answer = resolve;
    }).then(() => new Problem(409, 'Not held any more.'));
    const { hands, asked } = shown(hold(), whole(), id('n'), { [path]: () => refused });
    await hands.keyboard('p');
    expect(here()).toBe(`/articles/${id('n')}?held`);
    // The same is not said twice while it is on its way.
    await hands.keyboard('px');
    expect(asked).toHaveLength(1);
    expect(screen.queryByRole('alert')).toBeNull();
    answer!();
    const said = await screen.findByText(/Nothing was decided on/);
    expect(said.textContent).toMatch(/Gut or steel: Not held any more/);
    expect(within(said).getByRole('link').getAttribute('href')).toBe(`/articles/${A}?held`);
    await hands.click(screen.getByRole('button', { name: 'Seen' }));
    expect(screen.queryByText(/Nothing was decided on/)).toBeNull();
  });

  it('a word that is taken at last takes back what was said of it before', async () => {
    useDecisions.setState({ notTaken: [{ id: A, title: 'Gut or steel', why: 'Not reached.' }] });
    const { hands } = shown();
    expect(screen.getByText(/Nothing was decided on/)).toBeDefined();
    await hands.keyboard('p');
    await waitFor(() => expect(screen.queryByText(/Nothing was decided on/)).toBeNull());
  });

  it('sent back it takes a note, and none is sent without one', async () => {
    const { hands, asked } = shown();
    await hands.keyboard('b');
    const field = screen.getByLabelText('What is to be done differently');
    await waitFor(() => expect(document.activeElement).toBe(field));
    await hands.keyboard('{Enter}');
    expect(asked).toEqual([]);
    await hands.keyboard('With a picture{Enter}');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]!.body).toEqual({ decide: 'send back', note: 'With a picture', to: null });
  });

  it('Esc leaves the note; keys decide nothing while it is written', async () => {
    const { hands, asked } = shown();
    await hands.keyboard('b');
    await hands.keyboard('px{Escape}');
    expect(asked).toEqual([]);
    expect(screen.getByRole('button', { name: /^Pass it/ })).toBeDefined();
  });

  it('says what was asked, what the check found, and how many marks are open', () => {
    const { unmount } = shown();
    expect(screen.getByText('Is it right.')).toBeDefined();
    unmount();
    shown(
      hold({ kind: 'check', proposed: { check: { failing: ['120 words, 500 at least'] } } }),
      whole({ doubts: [{ block: 'p', kind: 'figure', words: '3' }], dueDesk: NOW + HOUR }),
    );
    expect(screen.getByText(/The check says: 120 words, 500 at least\. One mark is open/)).toBeDefined();
    expect(screen.getByRole('button', { name: /^Pass it for its slot, / })).toBeDefined();
  });

  it('a step that asks for something of its own leads there instead', async () => {
    const { hands, asked } = shown(hold({ kind: 'outline', proposed: {} }));
    await hands.keyboard('p');
    expect(asked).toEqual([]);
    await hands.click(screen.getByRole('button', { name: 'Look at what ‘outline’ asks' }));
    expect(here()).toBe(`/pipelines/${id('p')}?brief=${hold().brief}`);
  });

  it('what somebody else decided is said, and the last leads nowhere', async () => {
    const path = `POST /briefs/${hold().brief}/holds/${hold().run}`;
    const { hands, unmount } = shown(hold(), whole(), null, { [path]: () => new Problem(409, 'Not held any more.') });
    await hands.keyboard('p');
    await screen.findByText(/Not held any more/);
    unmount();
    const last = shown(hold(), whole(), null);
    await last.hands.keyboard('p');
    await waitFor(() => expect(last.asked).toHaveLength(1));
    expect(here()).toBe('/');
  });
});

function Which({ of }: { of: ArticleWhole }) {
  return <output aria-label="hold">{useHold(of)?.run ?? 'none'}</output>;
}

describe('what waits about an article', () => {
  const holds = [
    hold({ run: id('1'), path: 's4', proposed: { article: { id: id('m') } } }),
    hold({ run: id('2'), path: 'e1[German]/t1', proposed: {} }),
  ];
  it.each([
    ['the one that names it', whole({ id: id('m') }), id('1')],
    ['the one of its line', whole({ line: 'e1[German]' }), id('2')],
    ['none of another line', whole({ line: 'e1[French]' }), 'none'],
  ])('is %s', async (_, of, run) => {
    onScreen(<Which of={of} />, { [`GET /briefs/${of.brief}/holds`]: { holds } });
    if (run !== 'none') await screen.findByText(run);
    else await waitFor(() => expect(queryClient.isFetching()).toBe(0));
    expect(screen.getByRole('status', { name: 'hold' }).textContent).toBe(run);
    queryClient.clear();
  });
});

describe('an article on its blogs', () => {
  const line = (change: Partial<PublicationLine> = {}): PublicationLine => ({
    id: id('q'),
    blog: id('b'),
    blogName: 'Bowed strings',
    state: 'live',
    address: 'https://bowed.example/gut',
    outDesk: NOW - HOUR,
    as: 'live',
    datedDesk: null,
    newest: true,
    underWay: null,
    outside: null,
    can: ['update', 'withdraw'],
    ...change,
  });
  const shown = (one: PublicationLine, answer: Answer = { done: true }) =>
    onScreen(<OnBlogs article={whole({ publications: [one] })} now={NOW} />, {
      [`POST /articles/${A}/publications/${one.id}`]: answer,
    });
  const offers = () => screen.queryAllByRole('button').map((one) => one.textContent);

  it.each<[string, Partial<PublicationLine>, RegExp, string[]]>([
    ['out as it is', {}, /out since/, ['Take it from the blog…']],
    [
      'out as it was',
      { newest: false },
      /as it was before it was changed here/,
      ['Bring the newest text there', 'Take it from the blog…'],
    ],
    ['a draft', { state: 'draft' }, /a draft, that no reader sees/, ['Take it from the blog…']],
    ['taken back', { state: 'withdrawn', newest: null, can: [] }, /taken back/, ['Publish it there again']],
    ['on a blog that can neither', { newest: false, can: [] }, /as it was before/, []],
    ['under way', { newest: false, underWay: 'update' }, /not known to be done yet/, ['Look again']],
  ])('%s, is said with what can be done', (_, change, says, buttons) => {
    shown(line(change));
    expect(screen.getByRole('region', { name: 'On blogs' }).textContent).toMatch(says);
    expect(offers()).toEqual(buttons);
  });

  it('one that waits for its first slot is not there', () => {
    shown(line({ state: 'planned', newest: null }));
    expect(screen.getByRole('region', { name: 'On blogs' }).textContent).toBe('On blogson none yet');
  });

  it('it is put on a further blog once that is said again, and never on one it is on', async () => {
    const { hands, asked } = onScreen(<OnBlogs article={whole({ publications: [line()] })} now={NOW} />, {
      'GET /blogs': {
        blogs: [
          blog({ id: id('b'), name: 'Bowed strings' }),
          blog({ id: id('c'), name: 'Plucked strings' }),
          blog({ id: id('d'), name: 'Put away', archived: true }),
        ],
      },
      [`POST /articles/${A}/publications`]: { done: true },
    });
    expect(await screen.findByRole('button', { name: 'Another blog: Plucked strings' })).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'publish it now' }));
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([]);
    await hands.click(screen.getByRole('button', { name: 'Publish it' }));
    await waitFor(() =>
      expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => body)).toMatchObject([
        { blog: id('c'), as: 'live' },
      ]),
    );
  });

  it('the newest text is brought there by one press; what came of it is said where it is not known', async () => {
    const { hands, asked } = shown(line({ newest: false }), { done: false });
    await hands.click(screen.getByRole('button', { name: 'Bring the newest text there' }));
    await screen.findByText(/not known yet and is found out by itself/);
    expect(asked[0]!.body).toEqual({ act: 'update', revision: id('v') });
  });

  it('taking it away is asked about first, and why it was not done is said', async () => {
    const { hands, asked } = shown(line(), () => new Problem(502, 'The blog refused the key.'));
    await hands.click(screen.getByRole('button', { name: 'Take it from the blog…' }));
    expect(asked).toEqual([]);
    await hands.click(screen.getByRole('button', { name: 'Take it away' }));
    await screen.findByText(/The blog refused the key/);
    expect(asked[0]!.body).toEqual({ act: 'withdraw', revision: id('v') });
  });
});

describe('the revisions of an article', () => {
  const revision = (letter: string, change: Partial<RevisionLine> = {}): RevisionLine => ({
    id: id(letter),
    at: '2026-05-04T08:00:00Z',
    words: 3,
    person: null,
    step: 'write',
    current: false,
    on: [],
    ...change,
  });
  const of = (text: string) => ({ ...EMPTY_ARTICLE, title: 'Gut or steel', body: [paragraph('p', text)] });
  const shown = (all: RevisionLine[], change: Partial<ArticleWhole> = {}) =>
    onScreen(<Revisions article={whole(change)} />, {
      [`GET /articles/${A}/revisions`]: { revisions: all },
      [`GET /articles/${A}/revisions/${id('v')}`]: of('Gut answers much sooner.'),
      [`GET /articles/${A}/revisions/${id('w')}`]: of('Gut answers sooner.'),
      [`GET /articles/${A}/revisions/${id('x')}`]: of('Gut answers.'),
      [`PUT /articles/${A}/document`]: { revision: id('z'), document: of('Gut answers.') },
    });
  const three = [
    revision('v', { person: 'Ada', step: null, current: true }),
    revision('w', { person: 'Ada', step: 'hold', on: ['Bowed strings'] }),
    revision('x'),
  ];
  beforeEach(() => queryClient.clear());

  it('say who made each and where it is out; the newest is set against the one before', async () => {
    shown(three);
    const list = await screen.findByRole('list', { name: 'Revisions' });
    expect(within(list).getByText('Ada, at ‘hold’')).toBeDefined();
    expect(within(list).getByText('3 words, on Bowed strings')).toBeDefined();
    expect(within(list).getByText('the step ‘write’')).toBeDefined();
    await screen.findByText(/^1 place changed/);
    expect(document.querySelector('ins')!.textContent).toBe('much ');
    expect(screen.queryByRole('button', { name: 'Bring this one back' })).toBeNull();
  });

  it('any two are compared, and one is brought back onto the newest', async () => {
    const { hands, asked } = shown(three);
    const list = await screen.findByRole('list', { name: 'Revisions' });
    await hands.click(within(list).getAllByRole('button', { name: 'compare with this one' }).at(-1)!);
    await waitFor(() => expect(document.querySelector('ins')!.textContent).toBe(' much sooner'));
    await hands.click(within(list).getByText('the step ‘write’'));
    await hands.click(await screen.findByRole('button', { name: 'Bring this one back' }));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]!.body).toMatchObject({ base: id('v'), document: of('Gut answers.') });
  });

  it('one alone has nothing to be set against; none is brought back while a step is at it', async () => {
    const { unmount } = shown([revision('v', { current: true })]);
    await screen.findByText(/There is one revision so far/);
    unmount();
    queryClient.clear();
    const { hands } = shown(three, { busy: 'A step is at it.' });
    await hands.click(await screen.findByText('the step ‘write’'));
    expect((await screen.findByRole('button', { name: 'Bring this one back' })).hasAttribute('disabled')).toBe(true);
    expect(screen.getByText('A step is at it.')).toBeDefined();
  });
});

describe('an article of one’s own', () => {
  const shown = (brief: Answer, more: Record<string, Answer> = {}) =>
    onScreen(
      <>
        <Routes>
          <Route path="*" element={<WriteOne blogs={[blog(), blog({ id: id('e'), name: 'Plucked strings' })]} />} />
        </Routes>
        <Here />
      </>,
      { 'POST /articles': { id: id('f') }, [`GET /briefs/${id('f')}`]: brief, ...more },
    );

  it('begins with a blog, a title and some words; that it is not made is said', async () => {
    const { hands, asked } = shown({}, { 'POST /articles': () => new Problem(404, 'There is no such blog.') });
    await hands.click(screen.getByRole('button', { name: 'Write one yourself…' }));
    const begin = screen.getByRole('button', { name: 'Begin' });
    await hands.type(screen.getByRole('textbox', { name: 'Title' }), 'Bows');
    expect(begin.hasAttribute('disabled')).toBe(true);
    await hands.type(screen.getByRole('textbox', { name: /^Its first words/ }), 'A bow is hair.');
    await hands.click(screen.getByRole('button', { name: /^Blog: / }));
    await hands.click(screen.getByRole('radio', { name: /^Plucked strings/ }));
    await hands.click(begin);
    await screen.findByText(/There is no such blog/);
    expect(asked[0]!.body).toEqual({ blog: id('e'), title: 'Bows', text: 'A bow is hair.' });
  });
});
