import { AnewPrice, TitlesAnew, TitlesPiece } from '@grivo/contract';
import type { ArticleDocument } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { callInPieces } from '../api/pieces.ts';
import { Button, Trouble } from '../design/index.ts';
import { money } from '../words/figures.ts';

/** Other titles with a note: what they cost is said before, and the title stays until one of them is taken. */
export function AnewTitle({
  article,
  documentNow,
  onChoose,
}: {
  article: string;
  /** The article as it is typed at the moment. */
  documentNow: () => ArticleDocument;
  onChoose: (title: string) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" className="act quiet brackets">
          Write other titles…
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="pop w-[420px]" sideOffset={8} align="start" collisionPadding={12}>
          <Asked
            article={article}
            documentNow={documentNow}
            onChoose={(title) => {
              onChoose(title);
              setOpen(false);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const IDEAS = 'shorter, with the figure, as a question';

function Asked({ article, documentNow, onChoose }: Parameters<typeof AnewTitle>[0]) {
  const [note, setNote] = useState('');
  const [again, setAgain] = useState(0);
  const price = useQuery({
    queryKey: ['article', article, 'anew', 'title'],
    queryFn: () =>
      call('POST', `/articles/${article}/anew/title/price`, {
        body: { document: documentNow(), note: IDEAS },
        answer: AnewPrice,
      }),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [soFar, setSoFar] = useState<readonly string[]>([]);
  const asked = useMutation({
    mutationFn: (n: number) => {
      setSoFar([]);
      return callInPieces(`/articles/${article}/anew/title`, {
        body: { document: documentNow(), note, again: n },
        answer: TitlesAnew,
        piece: TitlesPiece,
        onPiece: ({ titles }) => setSoFar(titles),
        key: freshKey(),
      });
    },
  });
  return (
    <form
      className="pop-in flex flex-col gap-2"
      aria-label="Write other titles"
      onSubmit={(event) => {
        event.preventDefault();
        if (note.trim() === '') return;
        asked.mutate(again);
        setAgain(again + 1);
      }}
    >
      <input
        className="field"
        aria-label="What titles you want"
        placeholder={IDEAS}
        // biome-ignore lint/a11y/noAutofocus: it was asked for just now
        autoFocus
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
      <p className="flex items-baseline gap-3">
        <Button look="line" type="submit" disabled={note.trim() === ''} busy={asked.isPending ? 'Writing them' : null}>
          {asked.data ? 'Others still' : 'Write them'}
        </Button>
        <span className="text-small text-ink-3">
          {asked.data ? `cost ${money(asked.data.micros)}` : price.data ? `about ${money(price.data.micros)}` : ''}
        </span>
      </p>
      {price.isError && !asked.isError ? <Trouble>{inWords(price.error)}</Trouble> : null}
      {asked.isError ? <Trouble>{inWords(asked.error)}</Trouble> : null}
      {asked.isPending && soFar.length > 0 ? <Writing titles={soFar} /> : null}
      {asked.data ? <Written titles={asked.data.titles} onChoose={onChoose} /> : null}
    </form>
  );
}

/** Titles while they are written. */
function Writing({ titles }: { titles: readonly string[] }) {
  return (
    <ul aria-label="Titles being written" aria-busy="true">
      {titles.map((title, n) => (
        <li key={n} className="choice !block text-ink-2 work">
          {title}
          {n === titles.length - 1 ? <span className="writing-mark" aria-hidden="true" /> : null}
        </li>
      ))}
    </ul>
  );
}

/** Titles to choose from. */
function Written({ titles, onChoose }: { titles: readonly string[]; onChoose: (title: string) => void }) {
  return (
    <ul aria-label="Titles written">
      {titles.map((title) => (
        <li key={title}>
          <button type="button" className="choice !block cursor-pointer work" onClick={() => onChoose(title)}>
            {title}
          </button>
        </li>
      ))}
    </ul>
  );
}
