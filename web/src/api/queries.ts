import {
  Acts,
  Articles,
  ArticlesCounted,
  ArticleWhole,
  Blogs,
  BriefWhole,
  Destinations,
  Holds,
  HouseStyles,
  HouseStyleWhole,
  Item,
  ItemsUnchecked,
  KeptLists,
  Labels,
  LimitStanding,
  Looks,
  Neighbours,
  People,
  Person,
  Pipelines,
  Services,
  Sessions,
  Slots,
  Sources,
  SourceWhole,
  StyleVersions,
  SystemState,
  Today,
  Versions,
} from '@grivo/contract';
import { infiniteQueryOptions, keepPreviousData, QueryClient, queryOptions } from '@tanstack/react-query';
import { call, Refused } from './call.ts';
import { checkedInSlices, isSame } from './slices.ts';

/** Rows of the list of articles that are read in one go. */
const ARTICLES_A_PAGE = 120;

/**
 * Reads again what a change touches, and first reads that are on their way too: they may have been answered before the
 * change, and by itself the library takes their answer for the newest.
 */
class ReadingClient extends QueryClient {
  override invalidateQueries(...[filters, options]: Parameters<QueryClient['invalidateQueries']>): Promise<void> {
    const begun = this.getQueryCache()
      .findAll({ ...filters, fetchStatus: 'fetching' })
      .filter(({ state }) => state.data === undefined);
    const again = begun.map((query) =>
      query.fetch().then(
        () => super.invalidateQueries({ queryKey: query.queryKey, exact: true }, options),
        // What cannot be read is said by whoever reads it.
        () => undefined,
      ),
    );
    return Promise.all([super.invalidateQueries(filters, options), ...again]).then(() => undefined);
  }
}

export const queryClient = new ReadingClient({
  defaultOptions: {
    // A press that cannot be sent says so at once; it does not wait in secret for the line.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 30_000,
      refetchOnWindowFocus: true,
      retry: (times, error) => !(error instanceof Refused) && times < 5,
      retryDelay: (times) => Math.min(8_000, 500 * 2 ** times),
    },
  },
});

/** What is read from the API, each with the key under which changes are told. */
export const read = {
  session: () =>
    queryOptions({ queryKey: ['session'], queryFn: () => call('GET', '/session', { answer: Person }), retry: false }),
  labels: () => queryOptions({ queryKey: ['labels'], queryFn: () => call('GET', '/labels', { answer: Labels }) }),
  destinations: () =>
    queryOptions({
      queryKey: ['destinations'],
      queryFn: () => call('GET', '/destinations', { answer: Destinations }),
    }),
  /** What carries a label, or everything. */
  today: (label: string | null = null) =>
    queryOptions({
      queryKey: ['today', label],
      queryFn: () => call('GET', `/today${label === null ? '' : `?label=${label}`}`, { answer: Today }),
    }),
  slots: (from: number | null, days: number, label: string | null = null) =>
    queryOptions({
      queryKey: ['slots', from, days, label],
      queryFn: () =>
        call(
          'GET',
          `/slots?days=${days}${from === null ? '' : `&from=${from}`}${label === null ? '' : `&label=${label}`}`,
          {
            answer: Slots,
          },
        ),
    }),
  pipelines: () =>
    queryOptions({ queryKey: ['pipelines'], queryFn: () => call('GET', '/pipelines', { answer: Pipelines }) }),
  holds: (brief: string) =>
    queryOptions({
      queryKey: ['brief', brief, 'holds'],
      queryFn: () => call('GET', `/briefs/${brief}/holds`, { answer: Holds }),
    }),
  versions: (id: string) =>
    queryOptions({
      queryKey: ['versions', id],
      queryFn: () => call('GET', `/pipelines/${id}/versions`, { answer: Versions }),
    }),
  brief: (id: string) =>
    queryOptions({ queryKey: ['brief', id], queryFn: () => call('GET', `/briefs/${id}`, { answer: BriefWhole }) }),
  sources: () => queryOptions({ queryKey: ['sources'], queryFn: () => call('GET', '/sources', { answer: Sources }) }),
  source: (id: string) =>
    queryOptions({
      queryKey: ['source', id],
      queryFn: async () => withOwnChanges(await call('GET', `/sources/${id}`, { answer: SourceWhole })),
    }),
  looks: (source: string) =>
    queryOptions({
      queryKey: ['looks', source],
      queryFn: () => call('GET', `/sources/${source}/looks?limit=20`, { answer: Looks }),
    }),
  items: (source: string) =>
    queryOptions({
      queryKey: ['items', source],
      queryFn: async ({ signal }) => {
        const unchecked = await call('GET', `/sources/${source}/items`, { answer: ItemsUnchecked, signal });
        return { ...unchecked, items: await checkedInSlices(Item, unchecked.items) };
      },
      // A list that came again as it was stays the same object; part by part is more than a long one is worth.
      structuralSharing: (before, now) => (isSame(before, now) ? before : now),
    }),
  /** A list of articles, page by page, narrowed by the words of its address. */
  articles: (wanted: string) =>
    infiniteQueryOptions({
      queryKey: ['articles', 'list', wanted],
      queryFn: ({ pageParam, signal }) =>
        call(
          'GET',
          `/articles?limit=${ARTICLES_A_PAGE}${wanted && `&${wanted}`}${pageParam && `&before=${pageParam}`}`,
          {
            answer: Articles,
            signal,
          },
        ),
      initialPageParam: '',
      getNextPageParam: ({ next }) => next,
      // While another list is read the one before stays to be seen.
      placeholderData: keepPreviousData,
    }),
  articlesCounted: (wanted: string) =>
    queryOptions({
      queryKey: ['articles', 'count', wanted],
      queryFn: () => call('GET', `/articles/count${wanted && `?${wanted}`}`, { answer: ArticlesCounted }),
      placeholderData: keepPreviousData,
    }),
  /** The first of a list, as many as can be chosen from. */
  someArticles: (wanted: string, limit = 200) =>
    queryOptions({
      queryKey: ['articles', 'some', wanted, limit],
      queryFn: () => call('GET', `/articles?limit=${limit}${wanted && `&${wanted}`}`, { answer: Articles }),
      placeholderData: keepPreviousData,
    }),
  lists: () => queryOptions({ queryKey: ['lists'], queryFn: () => call('GET', '/lists', { answer: KeptLists }) }),
  article: (id: string) =>
    queryOptions({
      queryKey: ['article', id],
      queryFn: () => call('GET', `/articles/${id}`, { answer: ArticleWhole }),
    }),
  neighbours: (id: string, label: string | null = null, standing?: 'held') =>
    queryOptions({
      queryKey: ['articles', 'beside', id, label, standing ?? null],
      queryFn: () => {
        const wanted = new URLSearchParams({ ...(label === null ? {} : { label }), ...(standing ? { standing } : {}) });
        return call('GET', `/articles/${id}/neighbours${wanted.size > 0 ? `?${wanted}` : ''}`, { answer: Neighbours });
      },
    }),
  blogs: () => queryOptions({ queryKey: ['blogs'], queryFn: () => call('GET', '/blogs', { answer: Blogs }) }),
  styles: () => queryOptions({ queryKey: ['styles'], queryFn: () => call('GET', '/styles', { answer: HouseStyles }) }),
  style: (id: string) =>
    queryOptions({ queryKey: ['style', id], queryFn: () => call('GET', `/styles/${id}`, { answer: HouseStyleWhole }) }),
  styleVersions: (id: string) =>
    queryOptions({
      queryKey: ['style', id, 'versions'],
      queryFn: () => call('GET', `/styles/${id}/versions`, { answer: StyleVersions }),
    }),
  services: () =>
    queryOptions({ queryKey: ['services'], queryFn: () => call('GET', '/services', { answer: Services }) }),
  people: () => queryOptions({ queryKey: ['people'], queryFn: () => call('GET', '/people', { answer: People }) }),
  sessions: () =>
    queryOptions({ queryKey: ['sessions'], queryFn: () => call('GET', '/session/all', { answer: Sessions }) }),
  acts: () => queryOptions({ queryKey: ['acts'], queryFn: () => call('GET', '/acts?limit=50', { answer: Acts }) }),
  limit: () => queryOptions({ queryKey: ['limit'], queryFn: () => call('GET', '/limit', { answer: LimitStanding }) }),
  system: () => queryOptions({ queryKey: ['system'], queryFn: () => call('GET', '/system', { answer: SystemState }) }),
};

/** What is to be read again when a thing of this kind changed. */
const TOUCHES: Record<string, string[]> = {
  brief: ['today', 'slots', 'pipelines', 'pipeline', 'briefs', 'items', 'articles', 'sources', 'sheet', 'limit'],
  article: ['today', 'slots', 'articles'],
  blog: ['slots', 'blogs', 'today'],
  // Steps that go on without changing how their brief stands are told by their pipeline.
  pipeline: ['pipelines', 'pipeline', 'versions', 'slots', 'briefs', 'brief'],
  source: ['sources', 'items', 'looks', 'sheet', 'today'],
  service: ['services', 'today'],
  label: ['labels', 'pipelines', 'sources', 'blogs', 'articles', 'slots', 'today'],
  destination: ['destinations', 'pipeline'],
  style: ['styles', 'blogs', 'pipeline', 'article'],
};

/** Reads again what a change touches; the thing itself always. */
export function touched(noun: string, id: string): void {
  void queryClient.invalidateQueries({ queryKey: [noun, id] });
  for (const key of TOUCHES[noun] ?? []) void queryClient.invalidateQueries({ queryKey: [key] });
}

/** Changes of a source that are on their way, by the key of their mutation. */
export const changeOfSource = (id: string) => ['change source', id];

/** What was read of a source while it was being changed here: the changes stay as they show, and nothing older is shown again. */
function withOwnChanges(read: SourceWhole): SourceWhole {
  const shown = queryClient.getQueryData<SourceWhole>(['source', read.id]);
  if (!shown) return read;
  if (read.rev < shown.rev) return shown;
  const changing = queryClient.isMutating({ mutationKey: changeOfSource(read.id) }) > 0;
  return changing ? { ...read, settings: shown.settings } : read;
}
