import { clockOf, notSaid, textOf } from '@grivo/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { count, plural } from '../words/figures.ts';
import { JudgedItems, Judgements } from './Judgements.tsx';
import { OnSubject } from './OnSubject.tsx';
import { PutResult, putSays } from './putSays.ts';

const Gave = z
  .object({
    pages: z.array(z.object({ title: z.string(), address: z.string() })),
    carriesWords: z.number(),
    passages: z.array(z.string()),
    fitting: z.object({
      pages: z.number(),
      of: z.number(),
      lacking: z.array(z.string()),
      unanswered: z.array(z.string()).default([]),
    }),
    ours: z.unknown(),
    outline: z.array(z.object({ heading: z.string() })),
    article: z.object({ id: z.string(), words: z.number() }),
    figuresNotFound: z.array(z.string()),
    doubts: z.array(z.string()),
    carriedWords: z.number(),
    sectionsLeftOut: z.array(z.string()),
    notTaken: z.array(z.string()),
    titleChoices: z.array(z.string()),
    picture: z.object({ file: z.string() }),
    links: z.array(z.object({ title: z.string(), anchor: z.string() })),
    check: z.record(z.string(), z.unknown()),
    put: PutResult,
    publication: z.object({ would: z.string(), when: z.string() }),
    judgement: z.object({ score: z.number(), kind: z.string(), reason: z.string() }),
    judgements: JudgedItems,
    heard: z.object({ sure: z.number().nullable(), seconds: z.number() }),
    spokenWords: z.number(),
    notes: z.array(z.object({ heading: z.string(), points: z.array(z.object({ point: z.string() })) })),
    holds: z.boolean(),
    looked: z.record(z.string(), z.unknown()),
    values: z.record(z.string(), z.unknown()),
    asked: z.object({ for: z.string(), note: z.string() }),
  })
  .partial();

type Gave = z.infer<typeof Gave>;
/** What was given, once the field it is shown by is known to be there. */
type With<Name extends keyof Gave> = Gave & { [name in Name]-?: NonNullable<Gave[name]> };

/** How a result is shown, by the field that tells what it is; the first that is there is taken. */
const VIEWS: readonly (readonly [keyof Gave, (gave: never) => ReactNode])[] = [
  view('pages', ({ pages, fitting, carriesWords, ours }) => (
    <span title={pages.map((page) => page.title).join('\n')}>
      <TooFew fitting={fitting} />
      <OnSubject ours={ours} says />
      {plural(pages.length, 'page')}, enough for about {count(carriesWords ?? 0)} words:{' '}
      <span className="text-ink-2">{pages.map((page) => page.title).join(' · ')}</span>
    </span>
  )),
  view('outline', ({ outline }) => (
    <span className="block columns-2 gap-3 font-read text-[12.5px] leading-4">
      {outline.map(({ heading }) => (
        <span key={heading} className="block truncate" title={heading}>
          {heading}
        </span>
      ))}
    </span>
  )),
  view('titleChoices', ({ titleChoices }) => <Titles choices={titleChoices} />),
  view('picture', ({ picture }) => (
    <img
      src={`/api/files/${picture.file}`}
      alt="As it would head the article"
      className="h-14 border border-rule"
      loading="lazy"
    />
  )),
  view('links', ({ links }) => (
    <span>
      {links.length === 0 ? 'none of our pages fits' : `${plural(links.length, 'link')} placed: `}
      <span className="text-ink-2">{links.map((link) => link.anchor).join(', ')}</span>
    </span>
  )),
  view('check', ({ check }) => <Check check={check} />),
  view('put', ({ put }) => <span>{putSays(put)}</span>),
  view('publication', ({ publication: { when } }) => (
    <span className="text-ink-3">
      not in a trial; it would go out {when === 'at once' ? 'at once' : 'in the next free slot'}
    </span>
  )),
  view('article', (gave) => <Written gave={gave} />),
  view('judgements', ({ judgements }) => <Judgements items={judgements} />),
  view('heard', ({ heard: { seconds, sure }, spokenWords }) => (
    <span>
      {plural(spokenWords ?? 0, 'word')} heard in {clockOf(seconds)}
      {sure === null ? '' : `, ${sure} % sure`}
    </span>
  )),
  view('judgement', ({ judgement: { score, kind, reason } }) => (
    <span>
      <span className="fig font-semibold">{score}</span> of 10, {kind}. <span className="text-ink-2">{reason}</span>
    </span>
  )),
  view('notes', ({ notes }) => {
    const points = notes.flatMap((note) => note.points.map(({ point }) => point));
    return (
      <span title={points.join('\n')}>
        {plural(points.length, 'note')} for {plural(notes.length, 'section')}
      </span>
    );
  }),
  view('holds', ({ holds, looked }) => (
    <span>
      {holds ? 'it holds' : 'it does not hold'}
      {Object.entries(looked ?? {}).map(([field, value]) => (
        <span key={field} className="block truncate text-ink-3">
          {field}: {textOf(value) || 'empty'}
        </span>
      ))}
    </span>
  )),
  view('values', ({ values }) => <span>{Object.values(values).map(String).join(', ') || 'no values'}</span>),
  view('asked', ({ asked }) => <span className="text-ink-3">waits for {asked.for}</span>),
  view('passages', ({ passages, carriesWords }) => (
    <span>
      {plural(passages.length, 'passage')}
      {carriesWords === undefined ? '' : `, about ${plural(carriesWords, 'word')} to write from`}
    </span>
  )),
];

function view<Name extends keyof Gave>(name: Name, shows: (gave: With<Name>) => ReactNode) {
  return [name, shows] as const;
}

/** What a step gave, as what it is. */
export function Given({ gave: given }: { gave: Record<string, unknown> }) {
  const read = Gave.safeParse(given);
  const gave = read.success ? read.data : {};
  const [, shows] = VIEWS.find(([name]) => isThere(gave, name)) ?? [];
  return shows ? shows(gave as never) : <OwnFields gave={given} />;
}

/** Whether there is something to show by it; passages alone may only come with a step that is about something else. */
function isThere(gave: Gave, name: keyof Gave): boolean {
  if (name === 'titleChoices') return (gave.titleChoices?.length ?? 0) > 0;
  if (name === 'passages' && gave.carriesWords === undefined) return false;
  return gave[name] !== undefined;
}

function Titles({ choices }: { choices: readonly string[] }) {
  return (
    <ul>
      {choices.map((title, i) => (
        <li key={title} className="flex justify-between gap-2">
          <span
            className={`truncate font-read text-[13px] leading-4 font-medium ${i === 0 ? 'hl hl-full' : 'text-ink-2'}`}
          >
            {title}
          </span>
          <span className="fig text-ink-3">{title.length}</span>
        </li>
      ))}
    </ul>
  );
}

function Written({ gave }: { gave: With<'article'> }) {
  const { article, carriedWords, sectionsLeftOut = [], notTaken = [] } = gave;
  // What was made before doubts were kept has its figures.
  const said = gave.doubts ?? (gave.figuresNotFound ?? []).map((figure) => `‘${figure}’ stands in no source`);
  return (
    <span>
      <Link to={`/articles/${article.id}`} className="act brackets">
        {count(article.words)} words
      </Link>
      {carriedWords === undefined ? '' : `; the sources are enough for about ${count(carriedWords)}`}
      {sectionsLeftOut.length > 0 ? (
        <span className="block text-red">left out, as no source speaks of it: {sectionsLeftOut.join('; ')}</span>
      ) : null}
      {notTaken.length > 0 ? <span className="block text-red">not taken over: {notTaken.join('; ')}</span> : null}
      {said.length > 0 ? (
        <span className="block text-red">{said.join('; ')}</span>
      ) : (
        <span className="block text-ink-3">figures, dates, names and quotations are as in the sources</span>
      )}
    </span>
  );
}

/** How many of the pages found do not speak of the subject, and what none of them says. */
function TooFew({
  fitting,
}: {
  fitting: { pages: number; of: number; lacking: string[]; unanswered: string[] } | undefined;
}) {
  if (!fitting) return null;
  const { pages, of } = fitting;
  const without = notSaid(fitting);
  if (pages === of && without === '') return null;
  return (
    <span className={`block ${pages === 0 || fitting.unanswered.length > 0 ? 'text-red' : 'text-ink-3'}`}>
      {pages === of
        ? ''
        : `${pages} of ${plural(of, 'page')} found ${pages === 1 ? 'speaks' : 'speak'} of the subject. `}
      {without}
    </span>
  );
}

/** Fields of one's own, by name. */
function OwnFields({ gave }: { gave: Record<string, unknown> }) {
  const fields = Object.entries(gave).filter(([, value]) => value !== null);
  if (fields.length === 0) return <span className="text-ink-3">done</span>;
  return (
    <span>
      {fields.map(([name, value]) => (
        <span key={name} className="block truncate" title={textOf(value)}>
          <span className="text-ink-3">{name}</span> {textOf(value)}
        </span>
      ))}
    </span>
  );
}

function Check({ check }: { check: Record<string, unknown> }) {
  const { words, fits, failing, ours } = check as {
    words?: number;
    fits?: boolean;
    failing?: string[];
    ours?: unknown;
  };
  if (fits === false && failing && failing.length > 0)
    return (
      <>
        <span className="text-red">{failing.join('; ')}</span>
        <OnSubject ours={ours} />
      </>
    );
  return (
    <span className={fits === false ? 'text-red' : ''}>
      {words === undefined ? 'looked at' : `${count(words)} words`} {fits === false ? 'do not fit' : 'fit'}
    </span>
  );
}
