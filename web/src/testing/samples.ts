import type {
  Article,
  ArticleWhole,
  Blog,
  BlogSlots,
  Item,
  Pipeline,
  PipelineWhole,
  Service,
  Slot,
  Slots,
  Source,
  SourceWhole,
} from '@grivo/contract';
import { EMPTY_ARTICLE, type ProcedureDocument, type Step, stepKinds } from '@grivo/core';

/** Things of a workshop for strings, as the API would tell of them; each test says what is other about its own. */

/** Monday 4 May 2026, 09:00 in Dublin. */
export const NOW = Date.parse('2026-05-04T08:00:00Z');
export const HOUR = 3_600_000;

/** An id that can be told from others by its letter. */
export const id = (letter: string) => letter.repeat(20).slice(0, 20);

export const cadence = {
  rate: { kind: 'count' as const, n: 5, per: 'week' as const },
  days: [1, 2, 3, 4, 5],
  hours: { from: '08:00', to: '10:00' },
  gapMinutes: 240,
  start: '2024-01-01',
  pauses: [],
  zone: 'Europe/Dublin',
};

export const blog = (change: Partial<Blog> = {}): Blog => ({
  id: id('b'),
  name: 'Bowed',
  address: 'https://bowed.example',
  way: 'micropub',
  endpoint: 'https://bowed.example/micropub',
  settings: {},
  categories: null,
  lacks: {},
  mediaEndpoint: null,
  language: 'en',
  cadence,
  cadenceSentence: '5 a week, on weekdays',
  timeLimitMs: 15_000,
  pages: 12,
  out: 3,
  test: null,
  archived: false,
  labels: [],
  note: '',
  style: null,
  rev: 1,
  ...change,
});

export const source = (change: Partial<Source> = {}): Source => ({
  id: id('s'),
  kind: 'keywords',
  name: 'What players ask',
  items: 3,
  taken: 0,
  leftOut: 0,
  lastLook: null,
  note: '',
  archived: false,
  labels: [],
  trouble: null,
  brings: [],
  ...change,
});

export const item = (letter: string, subject: string, change: Partial<Item> = {}): Item => ({
  id: id(letter),
  subject,
  leftOut: null,
  leftDetail: '',
  gone: false,
  publishedDesk: null,
  about: '',
  answeredBy: null,
  volume: null,
  difficulty: null,
  results: [],
  taken: [],
  ...change,
});

export const sourceWhole = (settings: SourceWhole['settings'], change: Partial<SourceWhole> = {}): SourceWhole => ({
  ...source({ kind: settings.kind }),
  rev: 1,
  settings,
  ...change,
});

const NONE = { waiting: 0, 'in work': 0, held: 0, stopped: 0, ready: 0, out: 0, 'set aside': 0 };

export const pipeline = (
  change: Partial<Omit<Pipeline, 'counts'>> & { counts?: Partial<Pipeline['counts']> } = {},
): Pipeline => ({
  id: id('p'),
  name: 'Questions to guides',
  isOn: false,
  version: 1,
  openLimit: 10,
  note: '',
  archived: false,
  labels: [],
  rev: 1,
  nextLook: null,
  lastOut: null,
  outThisMonth: 0,
  microsEach: null,
  sentences: ['Take 3 items of What players ask.'],
  kinds: ['take', 'look up', 'write'],
  sources: [id('s')],
  publishes: [],
  ...change,
  counts: { ...NONE, ...change.counts },
});

/** A procedure of these steps, numbered as they stand. */
export function procedure(...steps: (Step['kind'] | Step)[]): ProcedureDocument {
  return {
    grivo: 1,
    language: 'en',
    steps: steps.map((step, i) =>
      typeof step === 'string' ? (stepKinds[step].fresh(`s${i + 1}`) as Step) : step,
    ) as ProcedureDocument['steps'],
  };
}

export const pipelineWhole = (
  document: ProcedureDocument,
  change: Parameters<typeof pipeline>[0] & { problems?: PipelineWhole['problems']; older?: number } = {},
): PipelineWhole => {
  const { problems = [], older = 0, ...rest } = change;
  return { ...pipeline(rest), document, problems, older };
};

export const service = (change: Partial<Service> = {}): Service => ({
  id: id('w'),
  role: 'writer',
  name: 'Quill',
  address: 'https://quill.example/v1',
  model: 'quill-2',
  price: { microsPerThousandIn: 1_000, microsPerThousandOut: 2_000, microsPerPicture: 0, microsPerMinute: 0 },
  permits: 4,
  callsAMinute: null,
  hasSecret: true,
  used: true,
  rev: 1,
  ...change,
});

export const article = (letter: string, title: string, change: Partial<Article> = {}): Article => ({
  id: id(letter),
  brief: id('z'),
  blog: id('b'),
  title,
  words: 900,
  standing: 'ready',
  language: 'en',
  address: null,
  outDesk: null,
  dueDesk: null,
  micros: 12_000,
  outOfRange: [],
  ...change,
});

export const slot = (hours: number, change: Partial<Slot> = {}): Slot => ({
  at: NOW + hours * HOUR,
  standing: 'planned',
  article: null,
  brief: null,
  title: null,
  pinned: false,
  foreseen: false,
  faults: [],
  ...change,
});

export const lane = (own: Slot[], change: Partial<BlogSlots> = {}): BlogSlots => ({
  blog: id('b'),
  name: 'Bowed',
  zone: 'Europe/Dublin',
  slots: own,
  dryFrom: null,
  ahead: 0,
  cadenceSentence: '5 a week, on weekdays',
  cadenceRev: 1,
  ...change,
});

export const slots = (...blogs: BlogSlots[]): Slots => ({
  now: NOW,
  speed: 0,
  from: NOW,
  to: NOW + 7 * 24 * HOUR,
  blogs,
});

/** An article with its text, as its own page has it. */
export const articleWhole = (change: Partial<ArticleWhole> = {}): ArticleWhole => ({
  ...article('a', 'Gut or steel'),
  document: { ...EMPTY_ARTICLE, title: 'Gut or steel' },
  html: '',
  passages: [],
  measures: [],
  doubts: [],
  house: null,
  line: '',
  revision: id('v'),
  busy: null,
  labels: [],
  publications: [],
  rev: 1,
  ...change,
});
