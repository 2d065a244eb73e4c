import { FeedsFound, ListedFeeds } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { Button, Field, Tick, Trouble } from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { dayLong } from '../../words/time.ts';
import { FileButton } from '../FileButton.tsx';
import { uploadAll } from '../uploads.ts';

export interface ChosenFeed {
  address: string;
  name: string;
}

/** Finds feeds by an address, a site or a subject, and shows their newest titles before any is chosen. */
export function FeedFinder({
  says,
  onChoose,
  busy,
}: {
  says: string;
  onChoose: (feeds: ChosenFeed[]) => void;
  busy: boolean;
}) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const find = useMutation({
    mutationFn: (text: string) => call('POST', '/feeds/find', { body: { text }, answer: FeedsFound }),
    onSuccess: () => setLeft(new Set()),
  });
  const feeds = find.data?.feeds ?? [];
  const chosen = feeds.filter(({ address }) => !left.has(address));
  const take = async (files: File[]) => {
    const [given] = await uploadAll(files);
    const listed = await call('POST', '/feeds/list', { body: { file: given!.file }, answer: ListedFeeds });
    onChoose(listed.feeds);
  };
  const toggle = (address: string) => {
    const next = new Set(left);
    if (!next.delete(address)) next.add(address);
    setLeft(next);
  };
  return (
    <div className="min-w-0">
      <FindForm busy={find.isPending} onText={find.mutate} onFile={take} />
      {find.isError ? <Trouble>{inWords(find.error)}</Trouble> : null}
      {feeds.length > 0 ? (
        <ul className="pt-2" aria-label="Feeds found">
          {feeds.map((feed) => (
            <Found
              key={feed.address}
              feed={feed}
              ticked={!left.has(feed.address)}
              onToggle={() => toggle(feed.address)}
            />
          ))}
          <li className="border-t border-rule-soft pt-2">
            <Button
              look="solid"
              disabled={chosen.length === 0}
              busy={busy ? 'Adding' : null}
              onClick={() => onChoose(chosen.map(({ address, name }) => ({ address, name })))}
            >
              {chosen.length < 2 ? says : `Add these ${count(chosen.length)}`}
            </Button>
          </li>
        </ul>
      ) : null}
    </div>
  );
}

function FindForm({
  busy,
  onText,
  onFile,
}: {
  busy: boolean;
  onText: (text: string) => void;
  onFile: (files: File[]) => Promise<void>;
}) {
  const [text, setText] = useState('');
  return (
    <form
      className="flex items-end gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') onText(text.trim());
      }}
    >
      <div className="min-w-0 flex-1">
        <Field
          label="Address of a feed or of a site, or a subject"
          value={text}
          autoFocus
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      <Button type="submit" look="line" disabled={text.trim() === ''} busy={busy ? 'Looking' : null}>
        Find feeds
      </Button>
      <FileButton says="or a list (OPML)…" busy="Reading…" accept=".opml,.xml" onFiles={onFile} />
    </form>
  );
}

/** One feed, with its newest titles. */
function Found({
  feed: { name, address, form, entries, pushes, newest },
  ticked,
  onToggle,
}: {
  feed: FeedsFound['feeds'][number];
  ticked: boolean;
  onToggle: () => void;
}) {
  return (
    <li className="border-t border-rule-soft py-2">
      <div className="flex items-baseline gap-2">
        <Tick label={name || address} state={ticked} onChange={onToggle}>
          <span className="font-medium">{name || address}</span>
        </Tick>
        <span className="text-small text-ink-3">
          {form}, {plural(entries, 'entry', 'entries')}
          {pushes ? ', pushes what is new' : ''}
        </span>
        <span className="truncate text-small text-ink-3">{address}</span>
      </div>
      <ol className="columns-2 gap-x-8 pt-1 pl-5 text-small">
        {newest.map((entry, i) => (
          <li key={i} className="flex gap-2 break-inside-avoid">
            {entry.link === null ? (
              <span className="truncate leading-6">{entry.title}</span>
            ) : (
              <a
                className="brackets truncate leading-6 hover:underline"
                href={entry.link}
                target="_blank"
                rel="noreferrer"
              >
                {entry.title}
              </a>
            )}
            <span className="fig ml-auto shrink-0 leading-6 text-ink-3">
              {entry.published === null ? 'no day' : dayLong(Date.parse(entry.published)).replace(',', '')}
            </span>
          </li>
        ))}
      </ol>
    </li>
  );
}
