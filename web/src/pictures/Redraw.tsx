import { type Picture, Redrawn, RedrawPrice } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { useEdits } from '../api/role.ts';
import { Button, Trouble } from '../design/index.ts';
import { money } from '../words/figures.ts';
import { addressOf, picturesChanged } from './usePictures.ts';

/** Asking for a picture to be drawn anew, and what came. */
function useRedraw(article: string, shows: string) {
  const [note, setNote] = useState('');
  const [again, setAgain] = useState(0);
  const may = useEdits();
  const price = useQuery({
    queryKey: ['redraw', 'price'],
    queryFn: () => call('GET', '/redraw/price', { answer: RedrawPrice }),
    enabled: may,
    retry: false,
  });
  const draw = useMutation({
    mutationFn: (n: number) =>
      call('POST', `/articles/${article}/redraw`, {
        body: { shows, note: note.trim(), again: n },
        answer: Redrawn,
        key: freshKey(),
      }),
    onSuccess: picturesChanged,
  });
  const ask = (n: number) => {
    setAgain(n);
    draw.mutate(n);
  };
  return { may, note, setNote, price, draw, ask, again };
}

/**
 * Has a picture drawn anew with a note: what it costs is said before, what comes stands beside what there is, and counts once
 * it is used.
 */
export function Redraw({
  article,
  file,
  shows,
  onUse,
}: {
  article: string;
  file: string;
  shows: string;
  onUse: (picture: Picture) => void;
}) {
  const { may, note, setNote, price, draw, ask, again } = useRedraw(article, shows);
  if (!may || price.isError) return null;
  return (
    <div>
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex min-w-56 flex-1 flex-col text-small text-ink-3">
          Redraw it with a note
          <input
            className="field text-ink"
            placeholder="what is to be otherwise"
            maxLength={500}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </label>
        <Button
          look="line"
          disabled={note.trim() === ''}
          busy={draw.isPending ? 'Drawing' : null}
          onClick={() => ask(again)}
        >
          Redraw it
        </Button>
        {price.data ? <span className="text-small text-ink-3">about {money(price.data.micros)}</span> : null}
      </div>
      {draw.isError ? <Trouble>{inWords(draw.error)}</Trouble> : null}
      {draw.data ? (
        <Compare
          file={file}
          drawn={draw.data}
          busy={draw.isPending}
          onUse={() => {
            onUse(draw.data.picture);
            draw.reset();
            setNote('');
          }}
          onAgain={() => ask(again + 1)}
          onDrop={() => draw.reset()}
        />
      ) : null}
    </div>
  );
}

function Compare({
  file,
  drawn: { picture, micros },
  busy,
  onUse,
  onAgain,
  onDrop,
}: {
  file: string;
  drawn: Redrawn;
  busy: boolean;
  onUse: () => void;
  onAgain: () => void;
  onDrop: () => void;
}) {
  return (
    <>
      <div className="grid grid-cols-2 gap-3 pt-2 text-small">
        <figure>
          <figcaption className="font-semibold">As it is</figcaption>
          <img src={addressOf({ file })} alt="" className="aspect-[3/2] w-full object-cover" />
        </figure>
        <figure>
          <figcaption className="font-semibold">
            Redrawn <span className="fig font-normal text-ink-3">{money(micros)}</span>
          </figcaption>
          <img src={addressOf(picture)} alt={picture.words} className="aspect-[3/2] w-full object-cover" />
        </figure>
      </div>
      <p className="flex flex-wrap gap-3 pt-2">
        <Button look="solid" onClick={onUse}>
          Use the redrawn one
        </Button>
        <Button look="line" onClick={onDrop}>
          Keep it as it is
        </Button>
        <Button look="quiet" busy={busy ? 'Drawing' : null} onClick={onAgain}>
          Redraw again
        </Button>
      </p>
    </>
  );
}
