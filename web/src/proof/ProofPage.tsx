import type { ArticleWhole, Evidence, AlsoHere as Other } from '@grivo/contract';
import { type Clash, directionOf, type MeasuredSource } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { memo, useCallback, useMemo, useState } from 'react';
import { read } from '../api/queries.ts';
import { Button, useFaces } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { AlsoHere, useAlsoHere } from './AlsoHere.tsx';
import { AnewBar } from './AnewBar.tsx';
import { Editor } from './Editor.tsx';
import type { EditorHands } from './editor.ts';
import { LinkBar } from './LinkBar.tsx';
import { MarginNotes } from './MarginNotes.tsx';
import { Measures } from './Measures.tsx';
import { SearchBar } from './SearchBar.tsx';
import type { Saving } from './saver.ts';
import { TitleFields, useDetails } from './TitleFields.tsx';
import { Toolbar } from './Toolbar.tsx';
import { useMeasures } from './useMeasures.ts';
import { type Proof, useProof } from './useProof.ts';

/** Drawn when a figure is another, not with every letter. */
const SteadyMeasures = memo(Measures);

type Bar = 'link' | 'find' | 'anew' | null;

/** An article being made right: typed in where readers will read it, what it rests on beside it, its measures live. */
export default function ProofPage({ article, onLeave }: { article: ArticleWhole; onLeave: () => void }) {
  const proof = useProof(article);
  const [bar, setBar] = useState<Bar>(null);
  const hands = useMemo<EditorHands>(
    () => ({ link: () => setBar('link'), find: () => setBar('find'), anew: () => setBar('anew'), leave: onLeave }),
    [onLeave],
  );
  const { measures, doubts, sources } = useMeasures(article, proof.document);
  const others = useAlsoHere(article.id, proof.at, true);
  const { view, documentNow } = proof;
  const leadTo = useCallback(
    (block: string) => {
      const n = documentNow().body.findIndex(({ id }) => id === block);
      view?.dom.children[n]?.scrollIntoView({ block: 'center' });
    },
    [view, documentNow],
  );
  return (
    <>
      <div className="min-w-0">
        <Bars
          article={article}
          proof={proof}
          others={others}
          bar={bar}
          onBar={setBar}
          onLeave={onLeave}
          onPlace={leadTo}
        />
        <Clashes clashes={proof.clashes} onPlace={leadTo} onSettled={proof.settled} />
        <Sheet article={article} proof={proof} doubts={doubts} others={others} hands={hands} sources={sources} />
      </div>
      <aside className="border-l border-rule px-6 pb-8" aria-label="Measures">
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls by itself, by keys too */}
        <div className="measures brackets" tabIndex={0}>
          <SteadyMeasures measures={measures} doubts={doubts} onPlace={leadTo} />
        </div>
      </aside>
    </>
  );
}

/** What can be done with the text, and how what is typed stands; it stays while the page goes by. */
function Bars({
  article,
  proof: { view, saving, flush, document, documentNow },
  others,
  bar,
  onBar,
  onLeave,
  onPlace,
}: {
  article: ArticleWhole;
  proof: Proof;
  others: readonly Other[];
  bar: Bar;
  onBar: (bar: Bar) => void;
  onLeave: () => void;
  onPlace: (block: string) => void;
}) {
  const role = useQuery(read.session()).data?.role;
  return (
    <div className="sticky top-[100px] z-20 border-b border-ink bg-paper">
      <div className="flex items-baseline gap-3 px-8 pt-1 text-small">
        <strong className="font-semibold">You are editing</strong>
        <Kept saving={saving} />
        <AlsoHere others={others} body={document.body} onPlace={onPlace} />
        <Button look="quiet" anyone className="ml-auto min-h-6" hint="Esc" onClick={() => void flush().then(onLeave)}>
          Done
        </Button>
      </div>
      {view ? (
        <Toolbar
          view={view}
          mayMarkup={role !== 'proofreader'}
          onLink={() => onBar('link')}
          onFind={() => onBar('find')}
          onAnew={role === 'proofreader' ? null : () => onBar('anew')}
        />
      ) : null}
      {view && bar === 'link' ? (
        <LinkBar article={article.id} language={document.language} view={view} onLeave={() => onBar(null)} />
      ) : null}
      {view && bar === 'anew' ? (
        <AnewBar article={article.id} documentNow={documentNow} view={view} onLeave={() => onBar(null)} />
      ) : null}
      {view && bar === 'find' ? <SearchBar view={view} onLeave={() => onBar(null)} /> : null}
    </div>
  );
}

function Kept({ saving }: { saving: Saving }) {
  switch (saving.kind) {
    case 'kept':
      return <span className="text-ink-3">everything is kept</span>;
    case 'on its way':
      return <span className="text-ink-3">keeping it …</span>;
    case 'later':
      return (
        <span role="status" className="text-red">
          Kept in this browser only, and tried again by itself: {saving.says}
        </span>
      );
    case 'refused':
      return (
        <span role="alert" className="text-red">
          Not taken: {saving.says}
        </span>
      );
  }
}

/** Where somebody else changed the same words: both stand, and one is taken out. */
function Clashes({
  clashes,
  onPlace,
  onSettled,
}: {
  clashes: readonly Clash[];
  onPlace: (block: string) => void;
  onSettled: () => void;
}) {
  if (clashes.length === 0) return null;
  return (
    <div role="status" className="border-b border-blue bg-blue-wash px-8 py-1 text-small">
      Somebody else changed the same words as you. Nothing is lost:{' '}
      {clashes.map(({ place, theirs }) =>
        'field' in place ? (
          <span key={place.field}>
            the {place.field} is yours now, theirs was ‘{theirs}’.{' '}
          </span>
        ) : (
          <span key={place.mine}>
            <button type="button" className="act brackets" onClick={() => onPlace(place.theirs)}>
              theirs
            </button>{' '}
            stands above{' '}
            <button type="button" className="act brackets" onClick={() => onPlace(place.mine)}>
              yours
            </button>
            ; take out the one you do not want.{' '}
          </span>
        ),
      )}
      <button type="button" className="act quiet brackets" onClick={onSettled}>
        {plural(clashes.length, 'place')} seen
      </button>
    </div>
  );
}

/** The page as readers get it, to be typed in. */
/** Passages by their ids, with their places where they are known. */
const usePassages = (known: readonly Evidence[], sources: readonly MeasuredSource[]): ReadonlyMap<string, Evidence> =>
  useMemo(
    () =>
      new Map<string, Evidence>([
        // What was picked just now is known by its words alone.
        ...sources.map(({ id, text }) => [id, { id, text, title: 'Its sources', place: '', address: '' }] as const),
        ...known.map((passage) => [passage.id, passage] as const),
      ]),
    [known, sources],
  );

function Sheet({
  article,
  proof,
  doubts,
  others,
  hands,
  sources,
}: {
  article: ArticleWhole;
  proof: Proof;
  doubts: ArticleWhole['doubts'];
  others: readonly Other[];
  hands: EditorHands;
  sources: readonly MeasuredSource[];
}) {
  const { document, view, at } = proof;
  useFaces(document.language);
  const person = useQuery(read.session()).data;
  const by = person?.name ?? '';
  const passages = usePassages(article.passages, sources);
  return (
    <div className="page grid grid-cols-[252px_32px_minmax(0,1fr)_24px] pb-24" lang={document.language}>
      <div className="flex flex-col">
        {view ? (
          <MarginNotes
            view={view}
            body={document.body}
            at={at}
            passages={passages}
            doubts={doubts}
            sources={sources}
            by={by}
          />
        ) : null}
      </div>
      <div />
      <div className="border-x border-rule bg-sheet px-8 pb-8" dir={directionOf(document.language)}>
        <TitleFields
          article={article.id}
          mayWrite={person !== undefined && person.role !== 'proofreader'}
          details={useDetails(document)}
          documentNow={proof.documentNow}
          onChange={proof.put}
        />
        <Editor
          document={document}
          doubts={doubts}
          others={others}
          hands={hands}
          onView={proof.onView}
          onUpdate={proof.onUpdate}
        />
      </div>
    </div>
  );
}
