// @vitest-environment jsdom
import type { Blog } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, HOUR, id, lane, NOW, pipeline, slot, slots } from '../testing/samples.ts';
import BlogPage from './BlogPage.tsx';
import Blogs from './Blogs.tsx';
import { ConnectBlog } from './connect/ConnectBlog.tsx';

const B = id('b');
const DAY = 24 * HOUR;
const WELL = { tried: 'Asked what it can do', came: 'It takes posts and pictures.', well: true, change: null, ms: 40 };
const WRONG = {
  tried: 'Put a draft up',
  came: 'It refused the secret.',
  well: false,
  change: 'Give it a token that may create posts.',
  ms: 1_200,
};
beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

function Here() {
  const { pathname, search } = useLocation();
  return <output aria-label="here">{pathname + search}</output>;
}
const here = () => screen.getByRole('status', { name: 'here' }).textContent;

describe('all blogs', () => {
  const shown = (blogs: Blog[] | Problem, more: Record<string, Answer> = {}) =>
    onScreen(
      <>
        <Blogs />
        <Here />
      </>,
      {
        'GET /blogs': blogs instanceof Problem ? () => blogs : { blogs },
        'GET /slots?days=7': slots(
          lane([], { dryFrom: NOW + 2 * DAY }),
          lane([], { blog: id('c'), name: 'Plucked', dryFrom: null }),
        ),
        'GET /labels': { labels: [] },
        'GET /stand-ins': { services: [], blogs: [] },
        ...more,
      },
    );

  it('each says its rule, whether it answered, and how far it is covered', async () => {
    shown([
      blog({ test: { atDesk: NOW - DAY, lines: [WELL, WRONG] } }),
      blog({ id: id('c'), name: 'Plucked', test: { atDesk: NOW, lines: [WELL] } }),
      blog({ id: id('d'), name: 'Struck', archived: true }),
    ]);
    const bowed = (await screen.findByRole('link', { name: 'Bowed' })).closest('li')!;
    await waitFor(() => expect(bowed.textContent).toContain('dry from Wed 6 May'));
    expect(bowed.textContent).toContain('5 a week, on weekdays');
    expect(bowed.textContent).toContain('the connection failed, tested Sun 3 May 08:00');
    const plucked = screen.getByRole('link', { name: 'Plucked' }).closest('li')!;
    expect(plucked.textContent).toContain('covered for eight weeks');
    expect(plucked.textContent).toMatch(/connected, tested (today|Mon 4 May) 08:00/);
    // What is put away is not among them.
    expect(screen.getByText('2 blogs')).toBeDefined();
    expect(screen.queryByRole('link', { name: 'Struck' })).toBeNull();
  });

  it('none leads to connecting the first', async () => {
    const { hands } = shown([]);
    await hands.click(await screen.findByRole('button', { name: 'Connect the first' }));
    expect(here()).toBe('/?new=');
    expect(screen.getByRole('textbox', { name: /Address of the blog/ })).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Not now' }));
    expect(screen.queryByRole('textbox', { name: /Address of the blog/ })).toBeNull();
  });

  it('that they cannot be read is said', async () => {
    shown(new Problem(503, 'The database does not answer.'));
    await screen.findByText(/The database does not answer/);
  });
});

describe('connecting a blog', () => {
  const FOUND = {
    address: 'https://bowed.example/',
    ways: [{ way: 'micropub', endpoint: 'https://bowed.example/micropub', settings: {} }],
    name: 'Bowed',
    language: 'de',
    approves: false,
    notes: ['That is a page of the blog; the blog itself is at https://bowed.example/.'],
  };
  async function filled(answers: Record<string, Answer>, address = 'bowed.example') {
    const all = onScreen(<ConnectBlog />, { 'GET /stand-ins': { services: [], blogs: [] }, ...answers });
    await all.hands.type(screen.getByRole('textbox', { name: /Address of the blog/ }), address);
    await all.hands.type(screen.getByLabelText(/Its secret/), 'horsehair{Enter}');
    return all;
  }

  it('its address is looked at first; name, language and endpoint are what was found there', async () => {
    const { asked } = await filled({
      'POST /blogs/find': FOUND,
      'POST /blogs': { id: B, joined: false, lines: [WELL, WRONG] },
    });
    await screen.findByText('Put a draft up');
    expect(asked[0]).toMatchObject({ path: '/blogs/find', body: { address: 'https://bowed.example' } });
    expect(asked[1]!.body).toMatchObject({
      name: 'Bowed',
      address: 'https://bowed.example',
      way: 'micropub',
      endpoint: 'https://bowed.example/micropub',
      secret: 'horsehair',
      language: 'de',
    });
    // What failed says what to change, at its own line.
    expect(screen.getByText('Put a draft up').closest('li')!.textContent).toContain(
      'Give it a token that may create posts.',
    );
  });

  it('what was found otherwise than it was typed is said, and that it was connected already', async () => {
    await filled({ 'POST /blogs/find': FOUND, 'POST /blogs': { id: B, joined: true, lines: [WELL] } });
    await screen.findByText(/connected already/);
    expect(screen.getByText(FOUND.notes[0]!)).toBeDefined();
  });

  it('where the page names no place for posts nothing is connected, and it is said what to do', async () => {
    const { asked } = await filled({ 'POST /blogs/find': { ...FOUND, ways: [] } });
    await screen.findByText(/names no place for posts/);
    expect(asked).toHaveLength(1);
  });

  it('a way that signs in by name asks for it, and nothing typed is lost', async () => {
    const rpc = { way: 'xml-rpc', endpoint: 'https://bowed.example/rpc', settings: { blogId: '7' } };
    const { hands, asked } = await filled({
      'POST /blogs/find': { ...FOUND, ways: [rpc] },
      'POST /blogs': { id: B, joined: false, lines: [WELL] },
    });
    await screen.findByText(/asks for a user name too/);
    await hands.type(screen.getByRole('textbox', { name: /User name there/ }), 'ines{Enter}');
    await screen.findByText('Asked what it can do');
    expect(asked.at(-1)!.body).toMatchObject({
      way: 'xml-rpc',
      endpoint: rpc.endpoint,
      settings: { blogId: '7', user: 'ines' },
      secret: 'horsehair',
    });
  });

  it('a folder is written as it is said, and what is lacking is told at its field', async () => {
    const { hands, asked } = onScreen(<ConnectBlog />, {
      'GET /stand-ins': { services: [], blogs: [] },
      'GET /blogs/folders': { folders: ['/srv/sites'] },
      'POST /blogs': { id: B, joined: false, lines: [WELL] },
    });
    await hands.click(screen.getByRole('button', { name: /How posts go there/ }));
    await hands.click(await screen.findByRole('radio', { name: /as files in a folder/ }));
    await screen.findByText(/A path below \/srv\/sites/);
    await hands.click(screen.getByRole('button', { name: /Connect and test/ }));
    await screen.findByText('The folder posts are written to.');
    await hands.type(screen.getByRole('textbox', { name: /What you call it/ }), 'Notes');
    await hands.type(screen.getByRole('textbox', { name: /Where its readers find it/ }), 'notes.example');
    await hands.type(screen.getByRole('textbox', { name: /^Folder/ }), 'notes');
    await hands.click(screen.getByRole('button', { name: /What posts are/ }));
    await hands.click(await screen.findByRole('radio', { name: /pages of HTML/ }));
    await hands.click(screen.getByRole('button', { name: /Connect and test/ }));
    await screen.findByText('Asked what it can do');
    expect(asked.at(-1)!.body).toMatchObject({
      way: 'folder',
      name: 'Notes',
      address: 'https://notes.example',
      endpoint: 'notes',
      settings: { folder: { form: 'HTML', file: '{slug}.html', pages: true } },
    });
  });

  it('a hook needs a name, an address of its own and a secret', async () => {
    const { hands, asked } = onScreen(<ConnectBlog />, {
      'GET /stand-ins': { services: [], blogs: [] },
      'POST /blogs': { id: B, joined: false, lines: [WELL] },
    });
    await hands.click(screen.getByRole('button', { name: /How posts go there/ }));
    await hands.click(await screen.findByRole('radio', { name: /by signed calls/ }));
    await hands.type(screen.getByRole('textbox', { name: /What you call it/ }), 'Ours');
    await hands.type(screen.getByRole('textbox', { name: /Where its readers find it/ }), 'ours.example');
    await hands.type(screen.getByLabelText(/Its secret/), 'shared{Enter}');
    await screen.findByText('Where the calls go.');
    await hands.type(screen.getByRole('textbox', { name: /Address the calls go to/ }), 'ours.example/in{Enter}');
    await screen.findByText('Asked what it can do');
    expect(asked.at(-1)!.body).toMatchObject({ way: 'hook', endpoint: 'https://ours.example/in', secret: 'shared' });
  });

  it('what is found nowhere is said, and what was typed stays', async () => {
    const { asked } = await filled({ 'POST /blogs/find': () => new Problem(422, 'Nothing answers there.') });
    await screen.findByText(/Nothing answers there/);
    expect(asked).toHaveLength(1);
    expect((screen.getByRole('textbox', { name: /Address of the blog/ }) as HTMLInputElement).value).toBe(
      'bowed.example',
    );
  });

  it('a stand-in is filled in at one press', async () => {
    const { hands } = onScreen(<ConnectBlog />, {
      'GET /stand-ins': {
        services: [],
        blogs: [{ name: 'Practice', address: 'http://127.0.0.1:9', secret: 'p', language: 'en' }],
      },
    });
    await hands.click(await screen.findByRole('button', { name: 'Practice' }));
    expect((screen.getByRole('textbox', { name: /Address of the blog/ }) as HTMLInputElement).value).toBe(
      'http://127.0.0.1:9',
    );
  });
});

describe('one blog', () => {
  const shown = (one: Blog = blog(), more: Record<string, Answer> = {}) =>
    onScreen(
      <Routes>
        <Route path="/blogs/:id" element={<BlogPage />} />
        <Route path="/" element={<Navigate to={`/blogs/${B}`} />} />
      </Routes>,
      {
        'GET /blogs': { blogs: [one] },
        'GET /slots?days=14': slots(
          lane([
            slot(-5, { standing: 'out', title: 'Long gone', article: id('g') }),
            slot(5, { standing: 'ready', title: 'Gut or steel', article: id('a') }),
            slot(29, { standing: 'in work', title: 'Frets', brief: id('f') }),
            slot(53),
          ]),
        ),
        'GET /pipelines': {
          pipelines: [
            pipeline({ publishes: [{ blog: B, says: 'Publish to Bowed when its slot comes' }] }),
            pipeline({
              id: id('q'),
              name: 'Elsewhere',
              publishes: [{ blog: id('c'), says: 'Publish to Bowed strings at once' }],
            }),
          ],
        },
        ...more,
      },
    );

  it('says what comes, what is empty, and which pipelines feed it', async () => {
    shown();
    await screen.findByText('Gut or steel');
    expect(screen.queryByText('Long gone')).toBeNull();
    expect(screen.getByText('1 slot empty in two weeks', { exact: false })).toBeDefined();
    expect(screen.getByText('Frets').tagName).toBe('SPAN');
    await screen.findByText('Fed by Questions to guides');
    expect(screen.getByRole('link', { name: 'Questions to guides' }).getAttribute('href')).toBe(
      `/pipelines/${id('p')}`,
    );
  });

  it('says where its posts and pictures go, and in which language', async () => {
    shown(blog({ mediaEndpoint: 'https://media.bowed.example/take', language: 'de' }));
    const says = (await screen.findByText(/^Posts go to/)).textContent!;
    expect(says).toContain('https://bowed.example/micropub, pictures to https://media.bowed.example/take');
    expect(says).toContain('in German');
  });

  it('a test is made when it is asked for; one that could not be made says why', async () => {
    let well = false;
    const { asked, hands } = shown(blog(), {
      [`POST /blogs/${B}/test`]: () =>
        well ? { atDesk: NOW, lines: [WELL] } : new Problem(429, 'Four tests a minute are enough.'),
    });
    await hands.click(await screen.findByRole('button', { name: 'Test it' }));
    await screen.findByText(/Four tests a minute are enough/);
    well = true;
    await hands.click(screen.getByRole('button', { name: 'Test it' }));
    await waitFor(() => expect(screen.queryByText(/Four tests a minute/)).toBeNull());
    expect(asked).toHaveLength(2);
  });

  it('a wrong secret is replaced, and what the test of it brought is said', async () => {
    let lines = [WELL, WRONG];
    const { asked, hands } = shown(blog(), { [`PUT /blogs/${B}/secret`]: () => ({ atDesk: NOW, lines }) });
    const give = async (secret: string) => {
      await hands.click(await screen.findByRole('button', { name: 'Give it a new secret' }));
      await hands.type(screen.getByLabelText('New secret'), `${secret}{Enter}`);
    };
    await give('wrong');
    await screen.findByText('Saved and tested: see below what is wrong.');
    lines = [WELL];
    await give('right');
    await screen.findByText('Saved and tested: it works.');
    expect(asked.map(({ body }) => body)).toEqual([{ secret: 'wrong' }, { secret: 'right' }]);
    // A secret that was given is not shown again.
    await hands.click(screen.getByRole('button', { name: 'Give it a new secret' }));
    expect((screen.getByLabelText('New secret') as HTMLInputElement).value).toBe('');
  });

  it('one that nobody feeds says so, with the way to a pipeline', async () => {
    shown(blog(), { 'GET /pipelines': { pipelines: [] } });
    await screen.findByText('No pipeline publishes here.');
    const section = screen.getByText('No pipeline publishes here yet.').parentElement!;
    expect(within(section).getByRole('link').getAttribute('href')).toBe('/pipelines?new');
  });

  it('one that is gone is said to be', async () => {
    shown(blog({ id: id('z') }));
    await screen.findByText(/There is no such blog/);
  });
});
