import type { Blog } from '@grivo/contract';
import { LISTED_MEASURES, languageName } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { read } from '../../api/queries.ts';
import { Button, ChoiceWord } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import { count, money, plural } from '../../words/figures.ts';
import type { Wanted, Word } from './wanted.ts';

const STANDINGS = [
  { value: '', says: 'any state', does: 'everything but what is set aside' },
  { value: 'held', says: 'waits for you', does: 'to be looked over' },
  { value: 'ready', says: 'ready', does: 'finished, waits for its slot' },
  { value: 'draft', says: 'draft on the blog', does: 'put there, and no reader sees it' },
  { value: 'out', says: 'out', does: 'readers see it' },
  { value: 'in work', says: 'in work', does: 'being made' },
  { value: 'stopped', says: 'stopped', does: 'something is in its way' },
  { value: 'withdrawn', says: 'taken back', does: 'was on the blog, and is not any more' },
  { value: 'set aside', says: 'set aside', does: 'ended on purpose' },
];

const DAYS = [
  { value: '', says: 'of any date', does: 'everything that comes and that went out' },
  { value: '7', says: 'of the last 7 days and to come', does: 'what went out before is left away' },
  { value: '30', says: 'of the last 30 days and to come', does: 'what went out before is left away' },
  { value: '90', says: 'of the last 90 days and to come', does: 'what went out before is left away' },
  { value: '365', says: 'of the last year and to come', does: 'what went out before is left away' },
];

const MARKS = [
  { value: '', says: 'any measures', does: 'in range or not' },
  { value: 'any', says: 'anything out of range', does: 'at least one measure is' },
  ...LISTED_MEASURES.map((name) => ({
    value: name,
    says: `‘${name}’ out of range`,
    does: 'whatever the others are',
  })),
];

const COSTS = [
  { value: '', says: 'whatever they cost', does: 'dear or cheap' },
  ...[20_000, 50_000, 100_000, 250_000, 500_000, 1_000_000].map((micros) => ({
    value: String(micros),
    says: `that cost ${money(micros)} and more`,
    does: 'what was paid for them until now',
  })),
];

const ORDERS = [
  {
    value: '',
    says: 'the best fit first',
    does: 'those that say it in their title, then those that say it in their text, the newest first',
  },
  { value: 'slot', says: 'by slot', does: 'what comes, then what is out, the last first' },
];

interface Option {
  value: string;
  says: string;
  does: string;
}

/** Which articles are shown, as a sentence of which each word can be changed. */
export function Narrowed({
  wanted,
  blogs,
  children,
}: {
  wanted: Wanted;
  blogs: readonly Blog[];
  /** What stands at the end of its line. */
  children: ReactNode;
}) {
  const pipelines = useQuery(read.pipelines()).data?.pipelines ?? [];
  const sources = useQuery(read.sources()).data?.sources ?? [];
  const languages = [...new Set([...blogs.map(({ language }) => language), wanted.word('language')])].filter(Boolean);
  const which: Option[] = [
    { value: '', says: 'all blogs', does: plural(blogs.length, 'blog') },
    ...blogs.map(({ id, name, out }) => ({ value: id, says: name, does: `${count(out)} out` })),
  ];
  const madeBy: Option[] = [
    { value: '', says: 'all pipelines', does: plural(pipelines.length, 'pipeline') },
    ...pipelines.map(({ id, name }) => ({ value: id, says: name, does: '' })),
  ];
  const from: Option[] = [
    { value: '', says: 'all sources', does: plural(sources.length, 'source') },
    ...sources.map(({ id, name }) => ({ value: id, says: name, does: '' })),
  ];
  const spoken: Option[] = [
    { value: '', says: 'any language', does: '' },
    ...languages.map((tag) => ({ value: tag, says: languageName(tag), does: '' })),
  ];
  const said = (label: string, word: Word, options: readonly Option[]) => (
    <ChoiceWord
      anyone
      label={label}
      value={wanted.word(word)}
      options={options}
      onChoose={(value) => wanted.say(word, value)}
    />
  );
  return (
    <div className="flex min-h-10 items-baseline gap-4 py-2">
      <p className="flex-1 text-proc">
        Show {said('Blogs', 'blog', which)}, {said('Pipelines', 'pipeline', madeBy)}, {said('Sources', 'source', from)},{' '}
        {languages.length > 1 ? <>{said('Language', 'language', spoken)}, </> : null}
        {said('Standing', 'standing', STANDINGS)}, {said('Date', 'days', DAYS)}, with {said('Measures', 'mark', MARKS)},{' '}
        {said('Cost', 'cost', COSTS)}
        {wanted.word('q') === '' ? null : <>, {said('Order', 'order', ORDERS)}</>}.
      </p>
      {children}
    </div>
  );
}

/** How long nothing is typed before it is looked for. */
const REST_MS = 250;

/** Words that stand in articles, looked for while they are typed. */
export function FindWords({ wanted: { word, say } }: { wanted: Wanted }) {
  const said = word('q');
  const [typed, setTyped] = useState(said);
  const field = useRef<HTMLInputElement>(null);
  const sent = useRef(said);
  useViewKeys({ f: () => field.current?.focus() });
  useEffect(() => {
    // Somebody went back, or opened a list that is kept.
    if (said !== sent.current) setTyped(said);
    sent.current = said;
  }, [said]);
  useEffect(() => {
    if (typed.trim() === sent.current) return;
    const rest = setTimeout(() => {
      sent.current = typed.trim();
      say('q', typed.trim());
    }, REST_MS);
    return () => clearTimeout(rest);
  }, [typed, say]);
  return (
    <span className="ml-auto flex min-w-0 flex-1 items-center justify-end gap-2">
      {typed === '' ? null : (
        <Button look="quiet" anyone onClick={() => setTyped('')}>
          Clear
        </Button>
      )}
      <input
        ref={field}
        type="search"
        className="field min-w-0 !max-w-52 flex-1 [&::-webkit-search-cancel-button]:hidden"
        placeholder="Find words in articles…"
        aria-label="Words in articles"
        title="Every word must stand there or begin one that does. “In quotation marks” in this order; -without this one."
        maxLength={200}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && (setTyped(''), field.current?.blur())}
      />
    </span>
  );
}
