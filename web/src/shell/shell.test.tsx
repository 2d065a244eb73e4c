// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react';
import { Tooltip } from 'radix-ui';
import { useLocation } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { article, blog, HOUR, id, lane, NOW, pipeline, slot, slots, source } from '../testing/samples.ts';
import { Band } from './Band.tsx';
import { CommandField } from './CommandField.tsx';
import { KeyMap } from './KeyMap.tsx';
import { useKeys, useShell, useViewKeys } from './keys.ts';
import { viewOf } from './views.ts';

beforeEach(() => {
  queryClient.setDefaultOptions({ queries: { retry: false } });
  useShell.setState({ finding: false, keys: false });
});

function Here() {
  const { pathname, search } = useLocation();
  return <output aria-label="here">{pathname + search}</output>;
}
const here = () => screen.getByRole('status', { name: 'here' }).textContent;

function Whole() {
  useKeys();
  return (
    <>
      <CommandField />
      <KeyMap />
      <input aria-label="elsewhere" />
      <Here />
    </>
  );
}

describe('the field that finds', () => {
  const shown = () =>
    onScreen(<Whole />, {
      'GET /pipelines': { pipelines: [pipeline()] },
      'GET /sources': { sources: [source(), source({ id: id('f'), kind: 'feed', name: 'Letters of a luthier' })] },
      'GET /blogs': { blogs: [blog()] },
      'GET /articles?*': ({ path }) => ({
        articles: [article('a', 'Gut or steel')].filter(({ title }) =>
          title.toLowerCase().includes(new URLSearchParams(path.split('?')[1]).get('title') ?? ''),
        ),
        next: null,
      }),
    });
  const options = () => screen.getAllByRole('option').map((one) => one.textContent);

  it('finds things by words in any order, and says what each is', async () => {
    const { hands } = shown();
    await hands.keyboard('/');
    await hands.type(screen.getByRole('combobox', { name: 'Find or do' }), 'luthier letters');
    await waitFor(() => expect(options()).toHaveLength(1));
    expect(options()[0]).toMatch(/^Letters of a luthier/);
    await hands.keyboard('{Enter}');
    expect(here()).toBe(`/intake/${id('f')}`);
  });

  it('accents and case are nothing to it', async () => {
    const { hands } = shown();
    await hands.keyboard('/');
    await hands.type(screen.getByRole('combobox', { name: 'Find or do' }), 'LÉTTERS');
    await waitFor(() => expect(options()).toHaveLength(1));
  });

  it('arrows go round, Enter goes there, and the field is empty again', async () => {
    const { hands } = shown();
    await hands.keyboard('/');
    await waitFor(() => expect(options().length).toBeGreaterThan(5));
    await hands.keyboard('{ArrowUp}{ArrowDown}{ArrowDown}');
    expect(screen.getByRole('option', { selected: true }).textContent).toContain('Pipelines');
    await hands.keyboard('{Enter}');
    expect(here()).toBe('/pipelines');
    expect((screen.getByRole('combobox') as HTMLInputElement).value).toBe('');
    expect(screen.queryByRole('listbox')).toBeNull();
  });

  it('an article is found by its title and opened by a press', async () => {
    const { hands } = shown();
    await hands.keyboard('/');
    await hands.type(screen.getByRole('combobox'), 'steel');
    await hands.click(await screen.findByRole('option', { name: /Gut or steel/ }));
    expect(here()).toBe(`/articles/${id('a')}`);
  });

  it('what is nowhere is said', async () => {
    const { hands } = shown();
    await hands.keyboard('/');
    await hands.type(screen.getByRole('combobox'), 'harpsichord');
    expect(screen.getByText('Nothing was found by that name.')).toBeDefined();
    await hands.keyboard('{Enter}');
    expect(here()).toBe('/');
    await hands.keyboard('{Escape}');
    expect(screen.queryByRole('listbox')).toBeNull();
  });

  it('G and a letter go to a view, but not while somebody types', async () => {
    const { hands } = shown();
    await hands.keyboard('gc');
    expect(here()).toBe('/cadence');
    await hands.keyboard('gs');
    expect(here()).toBe('/settings');
    await hands.keyboard('gx');
    expect(here()).toBe('/settings');
    await hands.type(screen.getByRole('textbox', { name: 'elsewhere' }), 'gb/?');
    expect(here()).toBe('/settings');
    expect(screen.queryByRole('listbox')).toBeNull();
    expect(screen.queryByRole('dialog')).toBeNull();
  });

  it('all keys stand on one page, every view among them', async () => {
    const { hands } = shown();
    await hands.keyboard('?');
    const page = await screen.findByRole('dialog', { name: 'Keys' });
    expect(
      within(page)
        .getAllByText(/^To /)
        .map((one) => one.textContent),
    ).toHaveLength(7);
    await hands.keyboard('{Escape}');
    expect(screen.queryByRole('dialog')).toBeNull();
  });
});

let pressed: string[] = [];
function View({ open = false }: { open?: boolean }) {
  useViewKeys({ n: () => pressed.push('n'), 'Ctrl+Enter': () => pressed.push('sent'), z: null });
  return (
    <>
      <textarea aria-label="text" />
      {open ? <div role="dialog">asks</div> : null}
    </>
  );
}

describe('the keys of a view', () => {
  beforeEach(() => {
    pressed = [];
  });

  it('are pressed plain or with Ctrl, and one without a deed does nothing', async () => {
    const { hands } = onScreen(<View />);
    await hands.keyboard('nz{Control>}{Enter}{/Control}{Control>}n{/Control}{Alt>}n{/Alt}');
    expect(pressed).toEqual(['n', 'sent']);
  });

  it('rest while somebody types, and while something is open above', async () => {
    const { hands, unmount } = onScreen(<View />);
    await hands.type(screen.getByRole('textbox'), 'n');
    expect(pressed).toEqual([]);
    unmount();
    const over = onScreen(<View open />);
    await over.hands.keyboard('n');
    expect(pressed).toEqual([]);
  });
});

describe('the band', () => {
  const DAY = 24 * HOUR;
  const shown = (answer: Answer) =>
    onScreen(
      <Tooltip.Provider>
        <Band />
      </Tooltip.Provider>,
      { 'GET /slots?days=7': answer, 'GET /labels': { labels: [] } },
    );
  const ready = slot(5, { standing: 'ready', title: 'Gut or steel', article: id('a') });

  it('every slot leads to what stands in it, and says so', async () => {
    shown(slots(lane([ready, slot(24, { standing: 'in work', title: 'Frets', brief: id('f') }), slot(48)])));
    const marks = within(await screen.findByRole('region', { name: 'The next seven days' }));
    await waitFor(() => expect(marks.getAllByRole('link').length).toBeGreaterThan(3));
    const to = (name: RegExp) => marks.getByRole('link', { name }).getAttribute('href');
    expect(to(/^Gut or steel, Bowed, today 14:00/)).toBe(`/articles/${id('a')}`);
    expect(to(/^Frets/)).toBe('/pipelines');
    expect(to(/^Empty slot/)).toBe('/cadence');
  });

  it('two articles that went out in the same moment have a mark each', async () => {
    const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
    shown(slots(lane([ready, { ...ready, article: id('z'), title: 'Rosin' }])));
    await screen.findByRole('link', { name: /^Gut or steel/ });
    expect(screen.getByRole('link', { name: /^Rosin/ }).getAttribute('href')).toBe(`/articles/${id('z')}`);
    expect(said).not.toHaveBeenCalled();
  });

  it('as a list it says the same in rows', async () => {
    const { hands } = shown(slots(lane([ready, slot(48)])));
    await hands.click(await screen.findByRole('button', { name: 'list' }));
    const rows = within(screen.getByRole('region', { name: 'The next seven days, as a list' })).getAllByRole(
      'listitem',
    );
    expect(rows.map((row) => row.textContent)).toEqual(['today 14:00Gut or steel', 'Wed 6 May 09:00empty']);
    await hands.click(screen.getByRole('button', { name: 'close' }));
    expect(screen.queryByRole('region', { name: /as a list/ })).toBeNull();
  });

  it('with more blogs than fit the last lane stands for the rest, and the first of them to run dry is said', async () => {
    const many = ['a', 'b', 'c', 'd', 'e'].map((letter, i) =>
      lane([], { blog: id(letter), name: `Blog ${letter}`, dryFrom: i < 2 ? null : NOW + (20 - i) * DAY, ahead: 1 }),
    );
    const { hands } = shown(slots(...many));
    await screen.findByText('3 more');
    expect(screen.getByText(/^3 more:/).textContent).toContain('until Wed 20 May');
    expect(screen.getByText(/^Blog a:/).textContent).toContain('covered for eight weeks');
    // In the list each has rows of its own.
    await hands.click(screen.getByRole('button', { name: 'list' }));
    expect(screen.getByRole('link', { name: 'Blog e' })).toBeDefined();
  });

  it('a blog that runs dry soon says so loudly; one without slots is not called covered', async () => {
    shown(slots(lane([ready], { dryFrom: NOW + 2 * DAY }), lane([], { blog: id('c'), name: 'Plucked' })));
    expect((await screen.findByText(/^Bowed:/)).className).toContain('font-bold');
    expect(screen.getByText(/^Plucked:/).textContent).toContain('no slots');
  });

  it('without blogs it says what will stand there; unread it says that', async () => {
    const { unmount } = shown(slots());
    await screen.findByText('Your blogs and their slots for the next seven days stand here.');
    unmount();
    queryClient.clear();
    shown(() => new Problem(503, 'The database does not answer.'));
    await screen.findByText('The slots cannot be read just now.');
  });
});

describe('the view of an address', () => {
  it.each([
    ['/', '/'],
    ['/pipelines/abc', '/pipelines'],
    ['/articles', '/articles'],
    ['/settings', ''],
  ])('%s belongs to ‘%s’', (path, view) => expect(viewOf(path)).toBe(view));
});
