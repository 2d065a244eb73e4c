import {
  findNext,
  findPrev,
  getMatchHighlights,
  replaceAll,
  replaceNext,
  SearchQuery,
  setSearchState,
} from 'prosemirror-search';
import type { Command } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { useEffect, useState } from 'react';
import { Button } from '../design/index.ts';
import { count } from '../words/figures.ts';

/** Finds words in the text, and puts others in their place. */
/** Marks what is looked for in the text; how often it was found, and what is done with it. */
function useFinding(view: EditorView, search: string, replace: string) {
  const [found, setFound] = useState(0);
  useEffect(() => {
    const query = new SearchQuery({ search, replace, literal: true });
    view.dispatch(setSearchState(view.state.tr, query).setMeta('addToHistory', false));
    setFound(search === '' ? 0 : getMatchHighlights(view.state).find().length);
  }, [view, search, replace]);
  useEffect(
    () => () => {
      if (!view.isDestroyed) view.dispatch(setSearchState(view.state.tr, new SearchQuery({ search: '' })));
    },
    [view],
  );
  const does = (command: Command) => {
    command(view.state, view.dispatch);
    view.dispatch(view.state.tr.scrollIntoView());
    setFound(getMatchHighlights(view.state).find().length);
  };
  return { found, does };
}

export function SearchBar({ view, onLeave }: { view: EditorView; onLeave: () => void }) {
  const [search, setSearch] = useState('');
  const [replace, setReplace] = useState('');
  const { found, does } = useFinding(view, search, replace);
  const leave = () => {
    onLeave();
    view.focus();
  };
  return (
    <form
      className="proof-bar"
      aria-label="Find and replace"
      onSubmit={(event) => {
        event.preventDefault();
        does(findNext);
      }}
      onKeyDown={(event) => event.key === 'Escape' && leave()}
    >
      <label className="flex items-baseline gap-1">
        Find
        <input
          className="field !w-40"
          // biome-ignore lint/a11y/noAutofocus: it was asked for just now
          autoFocus
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </label>
      <span className="fig w-16 text-ink-3" role="status">
        {search === '' ? '' : `${count(found)} found`}
      </span>
      <Button look="quiet" anyone disabled={found === 0} onClick={() => does(findPrev)}>
        Before
      </Button>
      <Button look="quiet" anyone disabled={found === 0} onClick={() => does(findNext)}>
        Next
      </Button>
      <label className="flex items-baseline gap-1">
        put instead
        <input className="field !w-40" value={replace} onChange={(event) => setReplace(event.target.value)} />
      </label>
      <Button look="quiet" anyone disabled={found === 0} onClick={() => does(replaceNext)}>
        This one
      </Button>
      <Button look="quiet" anyone disabled={found === 0} onClick={() => does(replaceAll)}>
        All of them
      </Button>
      <Button look="quiet" anyone className="ml-auto" onClick={leave}>
        Close
      </Button>
    </form>
  );
}
