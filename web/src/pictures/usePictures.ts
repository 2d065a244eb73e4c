import { BroughtPicture, type Picture, type PictureKind, Pictures, PictureWhole } from '@grivo/contract';
import { queryOptions, useMutation } from '@tanstack/react-query';
import { call } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { uploadAll } from '../intake/uploads.ts';

export interface PicturesWanted {
  find: string;
  kind: PictureKind | null;
  unused: boolean;
}

/** What is read of the library. */
export const picturesRead = {
  list: ({ find, kind, unused }: PicturesWanted, from = 0) =>
    queryOptions({
      queryKey: ['pictures', find, kind, unused, from],
      queryFn: () =>
        call(
          'GET',
          `/pictures?find=${encodeURIComponent(find)}${kind === null ? '' : `&kind=${kind}`}${unused ? '&unused=true' : ''}&from=${from}`,
          { answer: Pictures },
        ),
      placeholderData: (before) => before,
      refetchInterval: 15_000,
    }),
  one: (file: string) =>
    queryOptions({
      queryKey: ['pictures', 'one', file],
      queryFn: () => call('GET', `/pictures/${file}`, { answer: PictureWhole }),
      // Where a picture stands is noted a moment after an article changed.
      refetchInterval: 8_000,
    }),
};

export const picturesChanged = (): Promise<void> => queryClient.invalidateQueries({ queryKey: ['pictures'] });

/** What came of files that were brought in, each by its name. */
export interface Brought {
  fresh: string[];
  known: number;
}

/** Brings picture files into the library, one after the other; their names are what is said of them until somebody says more. */
export function useBring() {
  return useMutation({
    mutationFn: async (files: readonly File[]): Promise<Brought> => {
      const out: Brought = { fresh: [], known: 0 };
      for (const file of files) {
        const [uploaded] = await uploadAll([file]);
        const brought = await call('POST', '/pictures', {
          body: { file: uploaded!.file, words: wordsOfName(file.name) },
          answer: BroughtPicture,
        });
        if (brought.isNew) out.fresh.push(brought.file);
        else out.known++;
      }
      return out;
    },
    onSettled: picturesChanged,
  });
}

/** What a file's name says, as words: 'peg_box-2.jpg' is 'Peg box 2'. */
export function wordsOfName(name: string): string {
  const words = name
    .replace(/\.[a-z0-9]{2,5}$/i, '')
    .replace(/[-_.\s]+/g, ' ')
    .trim()
    .slice(0, 200);
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export const KINDS: Record<PictureKind, { says: string; does: string }> = {
  drawn: { says: 'drawn', does: 'by an illustrator, paid for' },
  still: { says: 'of sources', does: 'stills of videos, pictures of products' },
  own: { says: 'our own', does: 'brought in by people' },
  library: { says: 'of picture libraries', does: 'found in one by what they show' },
  card: { says: 'cards', does: 'titles set into a template' },
  came: { says: 'come with texts', does: 'they stood in finished texts' },
};

export const addressOf = ({ file }: Pick<Picture, 'file'>): string => `/api/files/${file}`;

/** Bytes as people say them. */
export function sizeInWords(bytes: number): string {
  return bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1_000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
}
