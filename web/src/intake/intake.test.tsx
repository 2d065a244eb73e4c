// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { id, item, lane, pipeline, slots, sourceWhole } from '../testing/samples.ts';
import { AddSource } from './AddSource.tsx';
import { ItemsSource } from './items/ItemsSource.tsx';
import { KeywordList } from './keywords/KeywordList.tsx';
import { Widen } from './keywords/Widen.tsx';
import { CatalogueSentence } from './kinds/CatalogueSentence.tsx';
import { Became, Paste } from './Paste.tsx';
import { SheetSentence } from './SheetSentence.tsx';

// It draws on a canvas, which there is none of here.
vi.mock('./keywords/Scatter.tsx', () => ({ default: () => null }));

const S = id('s');
const cleaned = { added: 2, evened: 1, measured: 0, leftOut: {}, dropped: [] };

describe('a paste', () => {
  it('is sent as it was typed, its parts counted before; what became of it is said', async () => {
    const added = vi.fn();
    const { asked, hands } = onScreen(<Paste into={() => Promise.resolve(S)} onAdded={added} />, {
      [`POST /sources/${S}/keywords`]: cleaned,
    });
    await hands.type(screen.getByLabelText('Phrases'), 'gut strings, steel strings');
    await hands.click(screen.getByRole('button', { name: /Clean and add 2/ }));
    await screen.findByText('2 phrases added, 1 of them tidied.');
    expect(asked[0]!.body).toEqual({ paste: 'gut strings, steel strings' });
    expect(added).toHaveBeenCalledWith({ ...cleaned, source: S });
    expect((screen.getByLabelText('Phrases') as HTMLTextAreaElement).value).toBe('');
  });

  it('where only lines part it a comma parts nothing', async () => {
    const { hands } = onScreen(<Paste into={() => Promise.resolve(S)} byLine />);
    await hands.type(screen.getByLabelText('Phrases'), 'gut, or steel?');
    expect(screen.getByRole('button', { name: /Clean and add 1/ })).toBeDefined();
  });

  it('what is refused is said, and nothing that was typed is lost', async () => {
    const { hands } = onScreen(<Paste into={() => Promise.resolve(S)} />, {
      [`POST /sources/${S}/keywords`]: new Problem(413, 'That is too long.'),
    });
    await hands.type(screen.getByLabelText('Phrases'), 'gut');
    await hands.click(screen.getByRole('button', { name: /Clean and add 1/ }));
    await screen.findByText(/That is too long/);
    expect((screen.getByLabelText('Phrases') as HTMLTextAreaElement).value).toBe('gut');
  });

  it('everything left out says why, and can be taken in all the same', async () => {
    const dropped = [
      { phrase: 'Gut Strings', reason: 'near repeat', of: 'gut strings' },
      { phrase: 'gut strings', reason: 'repeat', of: 'gut strings' },
    ];
    const { asked, hands } = onScreen(
      <Became {...cleaned} leftOut={{ 'near repeat': 1, repeat: 1 }} dropped={dropped} source={S} />,
      { [`POST /sources/${S}/keywords`]: cleaned },
    );
    await hands.click(screen.getByText(/^Left out:/));
    expect(screen.getByText('nearly the same as one in the list: ‘gut strings’')).toBeDefined();
    // What is there already cannot be taken in twice.
    const [take] = screen.getAllByRole('button', { name: 'Take it in' });
    expect(screen.getAllByRole('button', { name: 'Take it in' })).toHaveLength(1);
    await hands.click(take!);
    await screen.findByText('taken in');
    expect(asked[0]!.body).toEqual({
      phrases: [{ phrase: 'Gut Strings', volume: null, difficulty: null }],
      asIs: true,
    });
  });
});

const around = (items: ReturnType<typeof item>[], more: object = {}) => ({
  [`GET /sources/${S}/items`]: { items, addresses: [], more: 0 },
  'GET /slots?days=7': slots(lane([])),
  'GET /pipelines': { pipelines: [pipeline()] },
  'GET /articles?*': { articles: [], next: null },
  [`GET /sources/${S}/looks?limit=20`]: { looks: [] },
  'GET /labels': { labels: [] },
  ...more,
});

const KEYWORDS = {
  kind: 'keywords' as const,
  group: 'each' as const,
  spelling: 'as typed' as const,
  opportunity: 'volume * (100 - difficulty) / 100',
  site: null,
  country: null,
  startFrom: { at: 'the beginning' as const },
  exclude: [],
  lines: 'phrases' as const,
};

describe('a source’s items', () => {
  const settings = { kind: 'requests' as const, startFrom: { at: 'the beginning' as const }, exclude: [] };
  const three = [
    item('a', 'A viola of 1780'),
    item('c', 'A bow'),
    item('d', 'An old case', { leftOut: 'filtered', leftDetail: 'old' }),
  ];
  const shown = (more: object = {}) =>
    onScreen(
      <ItemsSource
        source={sourceWhole(settings)}
        says="requests"
        one="request"
        looks={false}
        sentence="Ask."
        empty="Nothing asked for yet."
      />,
      around(three, more),
    );

  it('are counted by what can be done with them, and only what can be taken has a tick', async () => {
    shown();
    await screen.findByText('A bow');
    expect(screen.getByRole('button', { name: 'new 2' }).getAttribute('aria-pressed')).toBe('true');
    expect(screen.queryByText('An old case')).toBeNull();
    expect(screen.getAllByRole('checkbox').map((box) => box.getAttribute('aria-label'))).toEqual([
      'All 2',
      'A viola of 1780',
      'A bow',
    ]);
  });

  it('all are ticked at once, one taken out, and just the others are taken', async () => {
    const { asked, hands } = shown({ [`POST /pipelines/${id('p')}/take`]: { found: 1, briefs: [id('z')] } });
    await screen.findByText('A bow');
    await hands.click(screen.getByRole('checkbox', { name: 'All 2' }));
    await hands.click(screen.getByRole('checkbox', { name: 'A bow' }));
    expect(screen.getByRole('checkbox', { name: 'All 2' }).getAttribute('aria-checked')).toBe('mixed');
    await hands.click(screen.getByRole('button', { name: /Take 1 request/ }));
    await waitFor(() => expect(asked.map(({ path }) => path)).toContain(`/pipelines/${id('p')}/take`));
    expect(asked[0]!.body).toMatchObject({ items: [id('a')] });
  });

  it('keys go through them, tick, and tick all', async () => {
    const { hands } = shown();
    await screen.findByText('A bow');
    await hands.keyboard('jj ');
    expect(screen.getByRole('checkbox', { name: 'A bow' }).getAttribute('aria-checked')).toBe('true');
    await hands.keyboard('a');
    expect(screen.getByRole('checkbox', { name: 'A viola of 1780' }).getAttribute('aria-checked')).toBe('true');
  });

  it('when none is there, what to do is said', async () => {
    onScreen(
      <ItemsSource source={sourceWhole(settings)} says="requests" one="request" sentence="" empty="Ask for one." />,
      around([]),
    );
    await screen.findByText('Ask for one.');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Take what is ticked/ }).disabled).toBe(true);
  });
});

describe('a list of phrases', () => {
  const phrases = [
    item('a', 'gut strings', { volume: 900, difficulty: 20 }),
    item('c', 'steel strings', { volume: 300, difficulty: 60 }),
    item('d', 'silk strings', { answeredBy: { id: id('x'), title: 'Silk' } }),
    item('e', 'wire', { leftOut: 'by hand' }),
  ];
  const shown = (more: object = {}) => {
    return onScreen(<KeywordList source={sourceWhole(KEYWORDS)} settings={KEYWORDS} />, around(phrases, more));
  };
  const names = () =>
    within(screen.getByRole('group', { name: 'Phrases of the list' }))
      .getAllByRole('listitem')
      .map((row) => row.querySelector('[title]')?.getAttribute('title'));

  it('stands as it was given, without what was left out, and says what is answered already', async () => {
    shown();
    await screen.findByText('silk strings');
    expect(names()).toEqual(['gut strings', 'steel strings', 'silk strings']);
    expect(screen.getByText(/keyword list, 3 phrases, 0 taken, 1 phrase answered already/)).toBeDefined();
  });

  it('is found in, put in an order and put back', async () => {
    const { hands } = shown();
    await screen.findByText('silk strings');
    await hands.type(screen.getByLabelText('Show phrases with'), 'STEEL');
    expect(names()).toEqual(['steel strings']);
    await hands.clear(screen.getByLabelText('Show phrases with'));
    const difficulty = screen.getByRole('button', { name: 'difficulty' });
    await hands.click(difficulty);
    expect(difficulty.getAttribute('aria-pressed')).toBe('true');
    expect(names()[0]).toBe('gut strings');
    await hands.click(difficulty);
    expect(difficulty.getAttribute('aria-pressed')).toBe('false');
  });

  it('all that is open is ticked at once: not what an article of ours answers', async () => {
    const { asked, hands } = shown({ [`POST /sources/${S}/offer`]: () => undefined });
    await screen.findByText('silk strings');
    await hands.click(screen.getByRole('checkbox', { name: 'All that are shown' }));
    expect(screen.getByRole('button', { name: /Take 2 as briefs/ })).toBeDefined();
    await hands.click(screen.getByRole('button', { name: /Leave 2 out/ }));
    await waitFor(() => expect(asked[0]!.body).toEqual({ items: [id('a'), id('c')], offer: false }));
  });

  it('keys go through it and tick by the space bar', async () => {
    const { hands } = shown();
    await screen.findByText('silk strings');
    await hands.keyboard('j ');
    expect(screen.getByRole('checkbox', { name: 'steel strings' }).getAttribute('aria-checked')).toBe('true');
    await hands.keyboard('w');
    expect(await screen.findByLabelText('Phrase to widen')).toBeDefined();
  });
});

describe('widening a phrase', () => {
  const found = (phrase: string, question: boolean, volume: number | null) => ({
    phrase,
    question,
    volume,
    difficulty: null,
  });
  const answer = {
    from: 'the service',
    trouble: null,
    phrases: [found('gut strings price', false, 90), found('how long do gut strings last', true, null)],
  };

  it('looks without adding; what is ticked is added with its figures', async () => {
    const { asked, hands } = onScreen(<Widen source={S} seed="gut strings" />, {
      [`POST /sources/${S}/widen`]: answer,
      [`POST /sources/${S}/keywords`]: { ...cleaned, added: 1 },
    });
    await hands.click(screen.getByRole('button', { name: 'Widen' }));
    await screen.findByText('What readers ask');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add what is ticked' }).disabled).toBe(true);
    await hands.click(screen.getByRole('checkbox', { name: 'All phrases' }));
    await hands.click(screen.getByRole('button', { name: 'Add 1 phrase' }));
    await screen.findByText('1 phrase added.');
    expect(asked.map(({ body }) => body)).toEqual([
      { phrase: 'gut strings' },
      { phrases: [{ phrase: 'gut strings price', volume: 90, difficulty: null }] },
    ]);
  });

  it('one letter is no phrase', async () => {
    const { asked, hands } = onScreen(<Widen source={S} seed="g" />);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Widen' }).disabled).toBe(true);
    await hands.type(screen.getByLabelText('Phrase to widen'), '{Enter}');
    expect(asked).toEqual([]);
  });

  it('when nothing new is found, and when it is only by patterns, that is said', async () => {
    const { hands } = onScreen(<Widen source={S} seed="gut" />, {
      [`POST /sources/${S}/widen`]: { from: 'patterns', trouble: 'The service is away.', phrases: [] },
    });
    await hands.click(screen.getByRole('button', { name: 'Widen' }));
    await screen.findByText('The list already has everything found around this phrase.');
    expect(screen.getByText(/^By patterns:/)).toBeDefined();
    expect(screen.getByText(/The service is away/)).toBeDefined();
  });
});

describe('how a sheet is read', () => {
  const column = (header: string, field: string | null) => ({ header, field, type: 'text' as const });
  const settings = {
    kind: 'sheet' as const,
    address: 'https://sheets.example/stock.csv',
    file: null,
    fileName: '',
    table: null,
    header: 1,
    separator: 'guess' as const,
    encoding: 'guess' as const,
    columns: [column('Name', 'title'), column('Price', 'price')],
    title: 'Name',
    identity: ['Name'],
    changed: false,
    startFrom: { at: 'the beginning' as const },
    exclude: [],
  };
  const shown = (change: object = {}, tables: string[] = [], encoding = 'utf-8') => {
    const put = vi.fn();
    const screenOf = onScreen(
      <SheetSentence settings={{ ...settings, ...change } as never} put={put} tables={tables} encoding={encoding} />,
    );
    return { put, ...screenOf };
  };

  it('reads as one sentence', () => {
    const { container } = shown();
    expect(container.textContent).toBe(
      'Look at sheets.example/stock.csv; the header is row 1, cells are separated by whatever the file uses in UTF-8; start from the beginning, then take new rows, not changed ones, leave out titles with certain words (none chosen); Name is the title, Name tells rows apart.',
    );
  });

  it('of a workbook nothing is asked about separators; of several tables one is chosen', async () => {
    const { container, put, hands } = shown({}, ['Bows', 'Cases'], 'workbook');
    await screen.findByRole('button', { name: 'Table: Bows' });
    expect(container.textContent).not.toContain('separated');
    await hands.click(screen.getByRole('button', { name: 'Table: Bows' }));
    await hands.click(screen.getByRole('radio', { name: /Cases/ }));
    expect(put).toHaveBeenCalledWith({ table: 'Cases', columns: [], header: null });
  });

  it('other separators read the columns anew; other columns may tell rows apart', async () => {
    const { put, hands } = shown();
    await hands.click(await screen.findByRole('button', { name: /^Separator/ }));
    await hands.click(screen.getByRole('radio', { name: /semicolons/ }));
    expect(put).toHaveBeenLastCalledWith({ separator: ';', columns: [] });
    await hands.click(screen.getByRole('button', { name: /^What tells rows apart/ }));
    await hands.click(screen.getByRole('checkbox', { name: 'Price' }));
    expect(put).toHaveBeenLastCalledWith({ identity: ['Name', 'Price'] });
    await hands.click(screen.getByRole('checkbox', { name: 'Name' }));
    expect(put).toHaveBeenLastCalledWith({ identity: [] });
  });
});

describe('which products of a list are taken', () => {
  const settings = {
    kind: 'catalogue' as const,
    address: 'https://partner.example/list.csv',
    file: null,
    fileName: '',
    columns: null,
    categories: ['Bows'],
    languages: ['de', 'en'],
    price: { from: null, to: 900 },
    order: 'cheapest' as const,
    spread: true,
    most: 20,
    partnerLink: '{link}?from={partner}',
    partner: '',
    startFrom: { at: 'the beginning' as const },
    exclude: [],
  };

  it('reads as one sentence', () => {
    const { container } = onScreen(<CatalogueSentence settings={settings as never} put={() => undefined} />);
    expect(container.textContent).toBe(
      'Take products of Bows in German and English, at a price from nothing to 900, none with certain words (none chosen); cheapest, categories in turn first, the first 20; link them as {link}?from={partner} with the id not given yet; start from the beginning.',
    );
  });

  it('a partner’s link needs the product’s in it', async () => {
    const put = vi.fn();
    const { hands } = onScreen(<CatalogueSentence settings={settings as never} put={put} />);
    await hands.click(await screen.findByRole('button', { name: /^Partner’s link/ }));
    const field = screen.getByLabelText('The partner’s link');
    await hands.clear(field);
    expect(put).toHaveBeenLastCalledWith({ partnerLink: '' });
    await hands.type(field, 'shop.example');
    expect(put).toHaveBeenCalledTimes(1);
  });

  it('categories take turns or not', async () => {
    const put = vi.fn();
    const { hands } = onScreen(<CatalogueSentence settings={settings as never} put={put} />);
    await hands.click(await screen.findByRole('button', { name: /^Order/ }));
    await hands.click(screen.getByRole('checkbox', { name: 'categories take turns' }));
    expect(put).toHaveBeenLastCalledWith({ spread: false });
    await hands.click(screen.getByRole('radio', { name: /^dearest/ }));
    expect(put).toHaveBeenLastCalledWith({ order: 'dearest' });
  });
});

describe('adding a source', () => {
  it('asks each kind for what it needs, and waits until that is there', async () => {
    const { hands } = onScreen(<AddSource kind="sheet" />);
    const add = screen.getByRole<HTMLButtonElement>('button', { name: 'Add it' });
    expect(add.disabled).toBe(true);
    await hands.type(screen.getByLabelText('Address of the sheet'), 'stock.csv');
    expect(add.disabled).toBe(true);
    await hands.clear(screen.getByLabelText('Address of the sheet'));
    await hands.type(screen.getByLabelText('Address of the sheet'), 'https://sheets.example/stock.csv');
    expect(add.disabled).toBe(false);
  });

  it('a kind that needs nothing is added bare; another is chosen in the sentence', async () => {
    const { hands } = onScreen(<AddSource kind="nonsense" />);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add it' }).disabled).toBe(false);
    await hands.click(await screen.findByRole('button', { name: 'Kind of source: a keyword list' }));
    await hands.click(screen.getByRole('radio', { name: /^videos/ }));
    expect(screen.getByLabelText(/^Handle, name or address of a channel/)).toBeDefined();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add it' }).disabled).toBe(true);
  });

  it('documents that are put in are there at once, without a look asked for', async () => {
    const { asked, hands } = onScreen(<AddSource kind="documents" />, {
      'POST /uploads?mime=application/octet-stream': { file: 'a'.repeat(64), bytes: 9 },
      'POST /sources': { id: id('s') },
      [`POST /sources/${id('s')}/look`]: { found: 1, fresh: 1, changed: 0, gone: 0, leftOut: 0, trouble: null },
    });
    const file = new File(['# Of bows'], 'bows.md', { type: 'text/markdown' });
    await hands.upload(document.querySelector<HTMLInputElement>('input[type=file]')!, file);
    await hands.click(screen.getByRole('button', { name: 'Add it' }));
    await waitFor(() =>
      expect(asked.map(({ method, path }) => `${method} ${path}`)).toContain(`POST /sources/${id('s')}/look`),
    );
    expect(asked.find(({ path }) => path === '/sources')!.body).toMatchObject({
      name: 'bows',
      settings: { kind: 'documents', files: [{ file: 'a'.repeat(64), fileName: 'bows.md' }] },
    });
  });

  it('feeds are found first', async () => {
    const { asked, hands } = onScreen(<AddSource kind="feed" />, {
      'POST /feeds/find': {
        feeds: [
          {
            address: 'https://news.example/feed',
            name: 'String news',
            form: 'RSS',
            entries: 2,
            pushes: false,
            newest: [{ title: 'Gut again', link: null, published: null }],
          },
        ],
      },
    });
    expect(screen.queryByRole('button', { name: 'Add it' })).toBeNull();
    await hands.type(screen.getByLabelText(/^Address of a feed/), ' strings {Enter}');
    await screen.findByText('Gut again');
    expect(asked[0]!.body).toEqual({ text: 'strings' });
    await hands.click(screen.getByRole('checkbox', { name: 'String news' }));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Add it' }).disabled).toBe(true);
  });
});
