import { AnewPrice } from '@grivo/contract';
import { type ArticleDocument, blockText } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import type { EditorView } from 'prosemirror-view';
import { call, inWords } from '../api/call.ts';
import { Button, ChoiceWord, Trouble } from '../design/index.ts';
import { money } from '../words/figures.ts';
import { AnewWriting, AnewWritten } from './AnewWritten.tsx';
import { type lettersAt, replaceBlocks } from './commands.ts';
import { useAnew } from './useAnew.ts';

const IDEAS = ['shorter', 'plainer words', 'with the figure from the source'];

/**
 * Has a part of the article written anew with a note: what it costs is said before, what comes stands beside what was there,
 * word by word, and counts once it is kept. Undoing takes it back.
 */
export function AnewBar({
  article,
  documentNow,
  view,
  onLeave,
}: {
  article: string;
  /** The article as it is typed at the moment. */
  documentNow: () => ArticleDocument;
  view: EditorView;
  onLeave: () => void;
}) {
  const anew = useAnew(article, documentNow, view);
  const { ids, isGone, isGoneNow, asked, soFar, write, again } = anew;
  const before = documentNow()
    .body.filter(({ id }) => ids.includes(id))
    .map(blockText)
    .join('\n\n');
  const leave = () => {
    onLeave();
    view.focus();
  };
  const keep = () => {
    if (asked.data && !isGoneNow()) replaceBlocks(ids, asked.data.blocks)(view.state, view.dispatch);
    leave();
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: Esc leaves whatever in it has the focus
    <div onKeyDown={(event) => event.key === 'Escape' && leave()}>
      <Wish article={article} documentNow={documentNow} anew={anew} onLeave={leave} />
      {asked.isError ? (
        <div className="px-8 pb-2">
          <Trouble>{inWords(asked.error)}</Trouble>
        </div>
      ) : null}
      {asked.isPending && !isGone ? <AnewWriting before={before} soFar={soFar} onDrop={leave} /> : null}
      {asked.data && !isGone ? (
        <AnewWritten
          before={before}
          written={asked.data}
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
  documentNow,
  anew: { scope, scopes, setScope, ids, letters, isGone, note, setNote, asked, write },
  onLeave,
}: {
  article: string;
  documentNow: () => ArticleDocument;
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
        <Price article={article} documentNow={documentNow} ids={ids} letters={letters} />
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
  documentNow,
  ids,
  letters,
}: {
  article: string;
  documentNow: () => ArticleDocument;
  ids: readonly string[];
  letters: ReturnType<typeof lettersAt>;
}) {
  const price = useQuery({
    queryKey: ['article', article, 'anew', ids.join(' '), letters],
    queryFn: () =>
      call('POST', `/articles/${article}/anew/price`, {
        body: { document: documentNow(), blocks: ids, letters, note: IDEAS.join(', ') },
        answer: AnewPrice,
      }),
    staleTime: Number.POSITIVE_INFINITY,
    enabled: ids.length > 0,
  });
  if (price.isError) return <span className="text-red">{inWords(price.error)}</span>;
  if (ids.length === 0) return <span className="text-ink-3">Put the place to type into a text first.</span>;
  return <span className="text-ink-3">{price.data ? `about ${money(price.data.micros)}` : ''}</span>;
}
