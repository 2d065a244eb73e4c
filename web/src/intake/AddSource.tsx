import type { SourceKind } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, ChoiceWord, Field, Trouble } from '../design/index.ts';
import { DOCUMENT_FILES } from './kinds/DocumentSource.tsx';
import { type ChosenFeed, FeedFinder } from './kinds/FeedFinder.tsx';
import { SOUND_FILES } from './kinds/RecordingSource.tsx';
import { makeFeedSource, makeSource, type SourceDraft } from './makeSource.ts';

interface KindWords {
  says: string;
  does: string;
  /** What is asked for, where anything is; otherwise what comes next. */
  asks?: string;
  next?: string;
  /** Files that can be given instead. */
  files?: { says: string; accept: string; many: boolean };
  /** Whether it can be made with nothing given. */
  bare?: boolean;
}

const KINDS: Record<SourceKind, KindWords> = {
  keywords: {
    says: 'a keyword list',
    does: 'phrases pasted, typed or read from a file',
    next: 'Paste, type or read the phrases in on its page.',
    bare: true,
  },
  sheet: {
    says: 'a sheet',
    does: 'rows of a CSV, XLSX or ODS file, or of an address that is looked at again',
    asks: 'Address of the sheet',
    files: { says: 'or a file…', accept: '.csv,.tsv,.txt,.xlsx,.ods', many: false },
  },
  videos: {
    says: 'videos',
    does: 'a channel by handle, name or address, a playlist, or single videos',
    asks: 'Handle, name or address of a channel, or addresses of videos',
    files: { says: 'or captions…', accept: '.vtt,.srt,.txt', many: false },
  },
  feed: { says: 'a feed', does: 'news by RSS, Atom or JSON Feed, found by an address or a subject' },
  documents: {
    says: 'pages and documents',
    does: 'PDF, DOCX, Markdown, HTML or text, pages by address, or a sitemap',
    asks: 'Addresses of pages and documents, or of a sitemap',
    files: { says: 'or files…', accept: DOCUMENT_FILES, many: true },
  },
  catalogue: {
    says: 'a catalogue',
    does: 'a partner’s list of products as CSV, XML or JSON, with your partner links',
    asks: 'Address of the list',
    files: { says: 'or a file…', accept: '.csv,.tsv,.xml,.json,.txt,.xlsx', many: false },
  },
  recordings: {
    says: 'recordings',
    does: 'a podcast’s episodes, sound files, or what you speak into the microphone',
    asks: 'Address of a podcast’s feed',
    files: { says: 'or recordings…', accept: SOUND_FILES, many: true },
    bare: true,
  },
  publications: {
    says: 'our own publications',
    does: 'what goes out on our blogs, so that something can follow it',
    next: 'It begins with what goes out from now on.',
    bare: true,
  },
  hook: {
    says: 'a hook',
    does: 'a secret address other programs hand items in at',
    next: 'Its address and lines to try it stand on its page.',
    bare: true,
  },
  requests: {
    says: 'requests',
    does: 'subjects with notes, typed in',
    next: 'Type subjects in on its page.',
    bare: true,
  },
};

const KIND_OPTIONS = Object.entries(KINDS).map(([value, { says, does }]) => ({
  value: value as SourceKind,
  says,
  does,
}));

const isKind = (text: string): text is SourceKind => text in KINDS;

/** Makes the source and leads to its page. */
function useAdding(draft: SourceDraft) {
  const go = useNavigate();
  const onSuccess = (id: string) => {
    void queryClient.invalidateQueries({ queryKey: ['sources'] });
    void go(`/intake/${id}`);
  };
  const add = useMutation({ mutationFn: () => makeSource(draft), onSuccess });
  const addFeeds = useMutation({
    mutationFn: (feeds: ChosenFeed[]) => makeFeedSource(draft.name, feeds),
    onSuccess,
  });
  return { add, addFeeds };
}

/** What is to be written about, and where it comes from, in one sentence. */
export function AddSource({ kind: given }: { kind: string }) {
  const [draft, setDraft] = useState<SourceDraft>({
    kind: isKind(given) ? given : 'keywords',
    name: '',
    where: '',
    files: [],
  });
  const put = (change: Partial<SourceDraft>) => setDraft((now) => ({ ...now, ...change }));
  const { add, addFeeds } = useAdding(draft);
  const { kind, where, files } = draft;
  const words = KINDS[kind];
  const hasWhere = kind === 'videos' ? where.trim() !== '' : /^https?:\/\/\S/i.test(where.trim());
  const ready = files.length > 0 || hasWhere || (words.bare === true && where.trim() === '');
  return (
    <>
      <form
        className="-mx-8 grid grid-cols-[auto_minmax(0,1fr)_minmax(0,260px)_auto] items-end gap-x-4 border-t border-rule bg-sheet px-8 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (ready && kind !== 'feed') add.mutate();
        }}
      >
        <span className="pb-1.5 text-proc whitespace-nowrap">
          Add{' '}
          <ChoiceWord
            label="Kind of source"
            value={kind}
            options={KIND_OPTIONS}
            onChoose={(chosen) => put({ kind: chosen, files: [] })}
          />
        </span>
        <Asked words={words} draft={draft} put={put} />
        <Field
          label="Called"
          value={draft.name}
          placeholder="a name, or leave it to Grivo"
          onChange={(event) => put({ name: event.target.value })}
        />
        {kind === 'feed' ? (
          <span />
        ) : (
          <Button type="submit" look="solid" disabled={!ready} busy={add.isPending ? 'Looking' : null}>
            Add it
          </Button>
        )}
        {add.isError || addFeeds.isError ? (
          <div className="col-span-4 pt-2">
            <Trouble>{inWords(add.error ?? addFeeds.error)}</Trouble>
          </div>
        ) : null}
      </form>
      {kind === 'feed' ? (
        <div className="-mx-8 bg-sheet px-8 pb-3">
          <FeedFinder says="Add it" busy={addFeeds.isPending} onChoose={(feeds) => addFeeds.mutate(feeds)} />
        </div>
      ) : null}
    </>
  );
}

/** What of a source of this kind is asked for: an address, files, or nothing. */
function Asked({
  words: { asks, next, files: accepts },
  draft: { where, files },
  put,
}: {
  words: KindWords;
  draft: SourceDraft;
  put: (change: Partial<SourceDraft>) => void;
}) {
  if (asks === undefined) return <span className="pb-1.5 text-small text-ink-3">{next ?? ''}</span>;
  return (
    <div className="flex items-end gap-3">
      <div className="min-w-0 flex-1">
        <Field label={asks} value={where} autoFocus onChange={(event) => put({ where: event.target.value })} />
      </div>
      {accepts ? (
        <label className="act quiet brackets cursor-pointer pb-1.5 text-small whitespace-nowrap">
          {files.length === 0 ? accepts.says : files.length === 1 ? files[0]!.name : `${files.length} files`}
          <input
            type="file"
            className="sr-only"
            accept={accepts.accept}
            multiple={accepts.many}
            onChange={(event) => put({ files: [...(event.target.files ?? [])] })}
          />
        </label>
      ) : null}
    </div>
  );
}
