import { AnewPrice, WrittenAnew } from '@grivo/contract';
import { type ArticleDocument, blockText, compareWords, doubtWords } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import type { EditorView } from 'prosemirror-view';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { Button, ChoiceWord, Trouble } from '../design/index.ts';
import { money } from '../words/figures.ts';
import { idsAt, lettersAt, replaceBlocks } from './commands.ts';

const SCOPES = [
  { value: 'words', says: 'the words picked', does: 'the rest of the paragraph stays as it is' },
  { value: 'blocks', says: 'what is picked', does: 'the paragraph typed in, or those selected' },
  { value: 'section', says: 'its whole section', does: 'everything under its heading' },
  { value: 'opening', says: 'the opening', does: 'everything above the first heading' },
] as const;
type Scope = (typeof SCOPES)[number]['value'];

const IDEAS = ['shorter', 'plainer words', 'with the figure from the source'];

/** Some letters of a paragraph as they stand now. */
function textAt({ body }: ArticleDocument, [id]: readonly string[], { from, to }: { from: number; to: number }) {
  const block = body.find((one) => one.id === id);
  return block ? blockText(block).slice(from, to) : '';
}

/** Asking for a part to be written anew, and what came. */
function useAnew(article: string, document: ArticleDocument, view: EditorView) {
  // What was at hand when it was asked for: the place to type may go elsewhere meanwhile.
  const [at] = useState(() => {
    const blocks = idsAt(view.state, 'blocks');
    const [section, opening] = [idsAt(view.state, 'section'), idsAt(view.state, 'opening')];
    const letters = lettersAt(view.state);
    const { from, to } = view.state.selection;
    const picked = letters && view.state.doc.textBetween(from, to);
    return { words: blocks, blocks, section, opening, letters, picked };
  });
  const [scope, put] = useState<Scope>(at.letters ? 'words' : 'blocks');
  const scopes = SCOPES.filter(({ value }) => (value === 'words' ? at.letters : at[value].length > 0));
  const [note, setNote] = useState('');
  const [again, setAgain] = useState(0);
  const letters = scope === 'words' ? at.letters : null;
  // Somebody else may have changed the paragraph: other words would stand there.
  const isGone = letters !== null && textAt(document, at.words, letters) !== at.picked;
  const ids = isGone ? [] : at[scope];
  const asked = useMutation({
    mutationFn: (n: number) =>
      call('POST', `/articles/${article}/anew`, {
        body: { document, blocks: ids, letters, note, again: n },
        answer: WrittenAnew,
        key: freshKey(),
      }),
  });
  const setScope = (value: Scope) => {
    put(value);
    asked.reset();
  };
  const write = (n: number) => {
    if (note.trim() === '' || ids.length === 0) return;
    setAgain(n);
    asked.mutate(n);
  };
  return { scope, scopes, setScope, ids, letters, isGone, note, setNote, asked, write, again };
}

/**
 * Has a part of the article written anew with a note: what it costs is said before, what comes stands beside what was there,
 * word by word, and counts once it is kept. Undoing takes it back.
 */
export function AnewBar({
  article,
  document,
  view,
  onLeave,
}: {
  article: string;
  document: ArticleDocument;
  view: EditorView;
  onLeave: () => void;
}) {
  const anew = useAnew(article, document, view);
  const { ids, isGone, asked, write, again } = anew;
  const leave = () => {
    onLeave();
    view.focus();
  };
  const keep = () => {
    if (asked.data) replaceBlocks(ids, asked.data.blocks)(view.state, view.dispatch);
    leave();
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: Esc leaves whatever in it has the focus
    <div onKeyDown={(event) => event.key === 'Escape' && leave()}>
      <Wish article={article} document={document} anew={anew} onLeave={leave} />
      {asked.isError ? (
        <div className="px-8 pb-2">
          <Trouble>{inWords(asked.error)}</Trouble>
        </div>
      ) : null}
      {asked.data && !isGone ? (
        <Written
          before={document.body.filter(({ id }) => ids.includes(id)).map(blockText)}
          written={asked.data}
          busy={asked.isPending}
          onKeep={keep}
          onAgain={() => write(again + 1)}
          onDrop={leave}
        />
      ) : null}
    </div>
  );
}

/** What is to be written anew and how it is to be otherwise. */
function Wish({
  article,
  document,
  anew: { scope, scopes, setScope, ids, letters, isGone, note, setNote, asked, write },
  onLeave,
}: {
  article: string;
  document: ArticleDocument;
  anew: ReturnType<typeof useAnew>;
  onLeave: () => void;
}) {
  return (
    <form
      className="proof-bar"
      aria-label="Write anew"
      onSubmit={(event) => {
        event.preventDefault();
        write(0);
      }}
    >
      <span>
        Write <ChoiceWord label="What" value={scope} options={scopes} onChoose={setScope} /> anew:
      </span>
      <input
        className="field !w-72"
        aria-label="What is to be otherwise"
        placeholder={IDEAS.join(', ')}
        // biome-ignore lint/a11y/noAutofocus: it was asked for just now
        autoFocus
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
      <Button
        look="line"
        type="submit"
        disabled={note.trim() === '' || ids.length === 0}
        busy={asked.isPending ? 'Writing it' : null}
      >
        Write it
      </Button>
      {isGone ? (
        <span className="text-red">These words were changed meanwhile. Close this and pick them again.</span>
      ) : (
        <Price article={article} document={document} ids={ids} letters={letters} />
      )}
      <Button look="quiet" anyone className="ml-auto" onClick={onLeave}>
        Close
      </Button>
    </form>
  );
}

/** About what it costs, before it is pressed. */
function Price({
  article,
  document,
  ids,
  letters,
}: {
  article: string;
  document: ArticleDocument;
  ids: readonly string[];
  letters: ReturnType<typeof lettersAt>;
}) {
  const price = useQuery({
    queryKey: ['article', article, 'anew', ids.join(' '), letters],
    queryFn: () =>
      call('POST', `/articles/${article}/anew/price`, {
        body: { document, blocks: ids, letters, note: IDEAS.join(', ') },
        answer: AnewPrice,
      }),
    staleTime: Number.POSITIVE_INFINITY,
    enabled: ids.length > 0,
  });
  if (price.isError) return <span className="text-red">{inWords(price.error)}</span>;
  if (ids.length === 0) return <span className="text-ink-3">Put the place to type into a text first.</span>;
  return <span className="text-ink-3">{price.data ? `about ${money(price.data.micros)}` : ''}</span>;
}

/** What came, against what was there, and what of it no source says. */
function Written({
  before,
  written,
  busy,
  onKeep,
  onAgain,
  onDrop,
}: {
  before: readonly string[];
  written: WrittenAnew;
  busy: boolean;
  onKeep: () => void;
  onAgain: () => void;
  onDrop: () => void;
}) {
  const after = written.blocks.map(blockText).join('\n\n');
  const words = compareWords(before.join('\n\n'), after);
  const bare = written.blocks.filter(({ evidence }) => (evidence?.length ?? 0) === 0).length;
  return (
    <section className="border-t border-rule-soft px-8 py-2" aria-label="Written anew">
      <div className="page grid max-h-[38vh] grid-cols-2 gap-6 overflow-auto">
        <p className="whitespace-pre-wrap text-ink-2">
          {words.map(({ stands, text }, i) =>
            stands === 'after' ? null : stands === 'before' ? (
              <del key={i} className="text-ink-3 line-through">
                {text}
              </del>
            ) : (
              <span key={i}>{text}</span>
            ),
          )}
        </p>
        <p className="whitespace-pre-wrap">
          {words.map(({ stands, text }, i) =>
            stands === 'before' ? null : stands === 'after' ? (
              <ins key={i} className="bg-blue-wash underline decoration-blue">
                {text}
              </ins>
            ) : (
              <span key={i}>{text}</span>
            ),
          )}
        </p>
      </div>
      <div className="flex flex-wrap items-baseline gap-4 pt-2 text-small">
        <Button look="line" onClick={onKeep}>
          Keep it
        </Button>
        <Button look="quiet" busy={busy ? 'Writing it' : null} onClick={onAgain}>
          Another way
        </Button>
        <Button look="quiet" anyone hint="Esc" onClick={onDrop}>
          Leave it as it is
        </Button>
        <span className="text-ink-3">cost {money(written.micros)}</span>
        {bare > 0 ? (
          <span className="text-red">{bare === 1 ? 'One paragraph rests' : `${bare} paragraphs rest`} on nothing.</span>
        ) : null}
        {written.doubts.map((doubt) => (
          <span key={doubtWords(doubt)} className="text-red">
            {doubtWords(doubt)}
          </span>
        ))}
      </div>
    </section>
  );
}
