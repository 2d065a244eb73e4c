import { type KeptList, Made } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { queryClient, read } from '../../api/queries.ts';
import { Button, Trouble, Word } from '../../design/index.ts';
import type { Wanted } from './wanted.ts';

/** The lists a person keeps by name: opened, kept, renamed, forgotten. */
export function KeptLists({ wanted }: { wanted: Wanted }) {
  const lists = useQuery(read.lists()).data?.lists ?? [];
  const here = lists.find((one) => one.wanted === wanted.kept);
  if (lists.length === 0 && wanted.kept === '') return null;
  return (
    <span className="text-small">
      <Word anyone label="Kept lists" editor={(close) => <Editor lists={lists} wanted={wanted} close={close} />}>
        {here ? here.name : lists.length === 0 ? 'keep this list…' : 'kept lists'}
      </Word>
    </span>
  );
}

function Editor({ lists, wanted, close }: { lists: readonly KeptList[]; wanted: Wanted; close: () => void }) {
  const [, setSearch] = useSearchParams();
  const changed = () => queryClient.invalidateQueries({ queryKey: ['lists'] });
  const keep = useMutation({
    mutationFn: (name: string) => call('POST', '/lists', { body: { name, wanted: wanted.kept }, answer: Made }),
    onSuccess: () => {
      void changed();
      close();
    },
  });
  return (
    <div className="w-80">
      {lists.length === 0 ? null : (
        <ul className="pb-3">
          {lists.map((list) => (
            <Kept
              key={list.id}
              list={list}
              here={list.wanted === wanted.kept}
              onOpen={() => {
                setSearch(list.wanted);
                close();
              }}
              onChanged={changed}
            />
          ))}
        </ul>
      )}
      {wanted.kept === '' ? (
        <p className="text-small text-ink-3">
          Change a word of the sentence, or find some words, to keep that as a list.
        </p>
      ) : (
        <Naming known={lists.map((one) => one.name)} busy={keep.isPending} onName={(name) => keep.mutate(name)} />
      )}
      {keep.isError ? <Trouble>{inWords(keep.error)}</Trouble> : null}
    </div>
  );
}

/** The name a list is kept by; one that is known is replaced. */
function Naming({ known, busy, onName }: { known: readonly string[]; busy: boolean; onName: (name: string) => void }) {
  const [typed, setTyped] = useState('');
  const name = typed.trim();
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (name !== '') onName(name);
      }}
    >
      <label className="block text-small">
        Keep what is shown as
        <input
          className="field mt-1"
          // biome-ignore lint/a11y/noAutofocus: it was opened to be named
          autoFocus
          maxLength={120}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <div className="pt-2">
        <Button look="line" anyone type="submit" disabled={name === ''} busy={busy ? 'Keeping' : null}>
          {known.includes(name) ? 'Replace that list' : 'Keep it'}
        </Button>
      </div>
    </form>
  );
}

function Kept({
  list,
  here,
  onOpen,
  onChanged,
}: {
  list: KeptList;
  here: boolean;
  onOpen: () => void;
  onChanged: () => Promise<void>;
}) {
  const [renaming, setRenaming] = useState(false);
  const forget = useMutation({ mutationFn: () => call('DELETE', `/lists/${list.id}`), onSettled: onChanged });
  if (renaming)
    return (
      <Renaming
        list={list}
        onDone={() => {
          setRenaming(false);
          void onChanged();
        }}
      />
    );
  return (
    <li className="flex min-h-7 items-center gap-3 border-b border-rule-soft">
      <button
        type="button"
        className={`brackets mr-auto min-h-6 min-w-0 truncate text-left ${here ? 'font-semibold' : ''}`}
        aria-current={here ? 'true' : undefined}
        onClick={onOpen}
      >
        {list.name}
      </button>
      <Button look="quiet" anyone aria-label={`Rename ${list.name}`} onClick={() => setRenaming(true)}>
        Rename
      </Button>
      <Button look="quiet" anyone aria-label={`Forget ${list.name}`} onClick={() => forget.mutate()}>
        Forget
      </Button>
    </li>
  );
}

function Renaming({ list, onDone }: { list: KeptList; onDone: () => void }) {
  const [name, setName] = useState(list.name);
  const rename = useMutation({
    mutationFn: (to: string) => call('PATCH', `/lists/${list.id}`, { body: { name: to } }),
    onSuccess: onDone,
  });
  return (
    <li className="border-b border-rule-soft py-1">
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '') rename.mutate(name.trim());
        }}
      >
        <input
          className="field"
          // biome-ignore lint/a11y/noAutofocus: it was asked for just now
          autoFocus
          aria-label={`Another name for ${list.name}`}
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button look="word" anyone type="submit" disabled={name.trim() === ''}>
          Rename
        </Button>
      </form>
      {rename.isError ? <Trouble>{inWords(rename.error)}</Trouble> : null}
    </li>
  );
}
