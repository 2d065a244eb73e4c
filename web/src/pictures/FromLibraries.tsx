import { FoundPictures, Picture } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { useEdits } from '../api/role.ts';
import { Button, Loading, Trouble } from '../design/index.ts';
import { picturesChanged } from './usePictures.ts';

type Found = FoundPictures['libraries'][number];

/** Pictures of the picture libraries that fit some words, each brought in by one press. */
export function FromLibraries({ words, onPick }: { words: string; onPick: (picture: Picture) => void }) {
  const [asked, setAsked] = useState<string | null>(null);
  const edits = useEdits();
  const found = useQuery({
    queryKey: ['library pictures', asked],
    queryFn: () =>
      call('GET', `/libraries/pictures?words=${encodeURIComponent(asked ?? '')}`, { answer: FoundPictures }),
    enabled: asked !== null,
    staleTime: 300_000,
    retry: false,
  });
  if (!edits) return null;
  const said = words.trim();
  return (
    <div>
      <p className="pt-2">
        <Button
          look="quiet"
          disabled={said === ''}
          busy={found.isFetching ? 'Looking' : null}
          onClick={() => setAsked(said)}
        >
          {said === ''
            ? 'Look in picture libraries: say first what it should show'
            : `Look for “${said}” in picture libraries`}
        </Button>
      </p>
      {found.isFetching ? <Loading rows={3} /> : null}
      {found.isError ? <Trouble>{inWords(found.error)}</Trouble> : null}
      {found.data?.libraries.length === 0 ? (
        <p className="text-small text-ink-3">No picture library is connected; an owner connects one in the settings.</p>
      ) : null}
      {(found.data?.libraries ?? []).map((library) => (
        <Library key={library.id} library={library} words={asked ?? ''} onPick={onPick} />
      ))}
    </div>
  );
}

function Library({
  library: { id, name, pictures, problem },
  words,
  onPick,
}: {
  library: Found;
  words: string;
  onPick: (picture: Picture) => void;
}) {
  const bring = useMutation({
    mutationFn: (picture: string) =>
      call('POST', `/libraries/${id}/pictures`, { body: { words, picture }, answer: Picture }),
    onSuccess: (picture) => {
      void picturesChanged();
      onPick(picture);
    },
  });
  return (
    <section aria-label={name} className="pt-2">
      <h3 className="text-small text-ink-3">{name}</h3>
      {problem ? <Trouble>{problem}</Trouble> : null}
      {bring.isError ? <Trouble>{inWords(bring.error)}</Trouble> : null}
      {problem === null && pictures.length === 0 ? <p className="text-small">It has none of this.</p> : null}
      <ul className="grid grid-cols-4 gap-2">
        {pictures.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              className="block w-full p-0.5 text-left hover:bg-marker-wash"
              aria-disabled={bring.isPending || undefined}
              onClick={() => (bring.isPending ? undefined : bring.mutate(one.id))}
            >
              <img src={one.thumb} alt="" className="aspect-[3/2] w-full object-cover" />
              <span className="line-clamp-2 text-small leading-4">{one.shows}</span>
              <span className="block truncate text-small leading-4 text-ink-3">
                {one.isUsed ? 'ours already' : one.credit || 'nobody to name'}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
