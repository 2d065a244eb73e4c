import type { Picture } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useEdits } from '../api/role.ts';
import { Empty, Loading, Trouble, Word } from '../design/index.ts';
import { FileButton } from '../intake/FileButton.tsx';
import { DrawCard } from './DrawCard.tsx';
import { FromLibraries } from './FromLibraries.tsx';
import { addressOf, picturesRead, useBring } from './usePictures.ts';

const MOST = 18;

/** A word that opens the library: a picture is found there by what it shows, or brought in, and taken by one press. */
export function PickPicture({
  says,
  article,
  onPick,
}: {
  says: string;
  /** The article it is for, where cards can be drawn with its title. */
  article?: string | undefined;
  onPick: (picture: Picture) => void;
}) {
  return (
    <Word label="Another picture" editor={(close) => <PictureChoice article={article} onPick={onPick} close={close} />}>
      {says}
    </Word>
  );
}

/** The library in small: a picture is found by what it shows, or brought in, and taken by one press. */
export function PictureChoice({
  article,
  onPick,
  close,
}: {
  article?: string | undefined;
  onPick: (picture: Picture) => void;
  close: () => void;
}) {
  const [find, setFind] = useState('');
  const list = useQuery(picturesRead.list({ find: useDeferredValue(find), kind: null, unused: false }));
  const bring = useBring();
  const edits = useEdits();
  const pick = (picture: Picture) => {
    onPick(picture);
    close();
  };
  return (
    <div className="w-[30rem] max-w-full" data-form="">
      <input
        className="field w-full"
        aria-label="Find by what it shows"
        placeholder="Find by what it shows…"
        value={find}
        onChange={(event) => setFind(event.target.value)}
      />
      {list.isPending ? <Loading rows={3} /> : null}
      {list.isError ? <Trouble>{inWords(list.error)}</Trouble> : null}
      {list.data?.pictures.length === 0 ? <Empty>No picture fits this.</Empty> : null}
      <Ours pictures={list.data?.pictures ?? []} pick={pick} />
      <FromLibraries words={find} onPick={pick} />
      {article === undefined ? null : <DrawCard article={article} onPick={pick} />}
      {edits ? (
        <p className="pt-2">
          <FileButton
            says="Bring in a file"
            busy="Bringing in"
            accept="image/png,image/jpeg,image/webp,image/avif"
            onFiles={async ([file]) => {
              const { fresh } = await bring.mutateAsync([file!]);
              const list = await queryClient.fetchQuery(picturesRead.list({ find: '', kind: null, unused: false }));
              const one = list.pictures.find((picture) => picture.file === fresh[0]);
              if (one) pick(one);
              else setFind('');
            }}
          />
        </p>
      ) : null}
    </div>
  );
}

function Ours({ pictures, pick }: { pictures: readonly Picture[]; pick: (picture: Picture) => void }) {
  return (
    <ul className="grid max-h-72 grid-cols-4 gap-2 overflow-y-auto pt-2">
      {pictures.slice(0, MOST).map((one) => (
        <li key={one.file}>
          <button type="button" className="block w-full p-0.5 text-left hover:bg-marker-wash" onClick={() => pick(one)}>
            <img src={addressOf(one)} alt="" loading="lazy" className="aspect-[3/2] w-full object-cover" />
            <span className="line-clamp-2 text-small leading-4">{one.words || 'no words yet'}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
