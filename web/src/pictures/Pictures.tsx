import type { Picture, PictureKind } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { inWords } from '../api/call.ts';
import { ChoiceWord, DoneHere, Empty, Loading, Trouble, useMay } from '../design/index.ts';
import { FileButton } from '../intake/FileButton.tsx';
import { count, money, plural } from '../words/figures.ts';
import { ArticleTabs } from './ArticleTabs.tsx';
import { FromLibraries } from './FromLibraries.tsx';
import { PictureDetails } from './PictureDetails.tsx';
import {
  addressOf,
  type Brought,
  KINDS,
  type PicturesWanted,
  picturesRead,
  sizeInWords,
  useBring,
} from './usePictures.ts';

const ACCEPTED = 'image/png,image/jpeg,image/webp,image/avif';

/** The library: every picture, where it is used, what it shows and cost; files are dropped into it. */
export default function PicturesPage() {
  const [wanted, setWanted] = useState<PicturesWanted>({ find: '', kind: null, unused: false });
  const [from, setFrom] = useState(0);
  const [chosen, setChosen] = useState<string | null>(null);
  const list = useQuery(picturesRead.list({ ...wanted, find: useDeferredValue(wanted.find) }, from));
  const bring = useBring();
  const may = useMay();
  const put = (change: Partial<PicturesWanted>) => {
    setWanted({ ...wanted, ...change });
    setFrom(0);
  };
  const take = async (files: readonly File[]) => {
    const { fresh } = await bring.mutateAsync(files);
    if (fresh[0]) setChosen(fresh[0]);
  };
  const pictures = list.data?.pictures ?? [];
  const shown = chosen ?? pictures[0]?.file ?? null;
  return (
    <>
      <PicturesHead
        sums={list.data?.sums}
        wanted={wanted}
        put={put}
        bring={
          may ? <FileButton says="Bring in pictures" busy="Bringing in" accept={ACCEPTED} many onFiles={take} /> : null
        }
      />
      <section
        aria-label="Pictures, files can be dropped here"
        className="-mx-8 grid flex-1 grid-cols-[minmax(0,1fr)_480px] content-start border-t border-ink max-[1100px]:grid-cols-1"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          const files = [...event.dataTransfer.files];
          if (may && files.length > 0) void take(files).catch(() => undefined);
        }}
      >
        <div className="px-8 py-4">
          {list.isError ? <Trouble>{inWords(list.error)}</Trouble> : null}
          {bring.isError ? <Trouble>{inWords(bring.error)}</Trouble> : null}
          {bring.data ? <BroughtSaid brought={bring.data} /> : null}
          {list.isPending ? <Loading rows={6} /> : null}
          {list.data && pictures.length === 0 ? (
            <Empty>
              {list.data.sums.pictures === 0
                ? 'No picture yet. Drop files here, or let a pipeline illustrate its articles.'
                : 'No picture fits this.'}
            </Empty>
          ) : null}
          <Thumbs pictures={pictures} shown={shown} choose={setChosen} />
          <Further list={list.data} from={from} setFrom={setFrom} />
          <FromLibraries words={wanted.find} onPick={({ file }) => setChosen(file)} />
        </div>
        <div className="border-l border-rule bg-sheet px-6 pr-8 pb-8 max-[1100px]:border-l-0 max-[1100px]:px-8">
          {shown ? <PictureDetails key={shown} file={shown} choose={setChosen} /> : null}
        </div>
      </section>
    </>
  );
}

interface Sums {
  pictures: number;
  unused: number;
  cost: number;
  bytes: number;
}

function PicturesHead({
  sums,
  wanted: { find, kind, unused },
  put,
  bring,
}: {
  sums: Sums | undefined;
  wanted: PicturesWanted;
  put: (change: Partial<PicturesWanted>) => void;
  bring: React.ReactNode;
}) {
  return (
    <>
      <div className="flex min-h-[52px] flex-wrap items-center gap-x-6 pt-2">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Articles</h1>
        <ArticleTabs at="pictures" />
        {sums ? (
          <span className="text-ink-3">
            {plural(sums.pictures, 'picture')}, {money(sums.cost)} spent on drawing, {sizeInWords(sums.bytes)}
            {sums.unused > 0 ? `; ${count(sums.unused)} used nowhere` : ''}
          </span>
        ) : null}
        <span className="ml-auto">{bring}</span>
      </div>
      <div className="flex min-h-10 flex-wrap items-center gap-x-2 py-1 text-proc">
        <p>
          Show{' '}
          <ChoiceWord
            label="Where they are from"
            value={kind ?? 'all'}
            options={[
              { value: 'all', says: 'all pictures', does: 'wherever they are from' },
              ...Object.entries(KINDS).map(([value, { says, does }]) => ({ value: value as PictureKind, says, does })),
            ]}
            onChoose={(chosen) => put({ kind: chosen === 'all' ? null : chosen })}
          />
          ,{' '}
          <ChoiceWord
            label="Use"
            value={unused ? 'unused' : 'any'}
            options={[
              { value: 'any', says: 'used or not', does: 'all of them' },
              { value: 'unused', says: 'used nowhere', does: 'no article has them' },
            ]}
            onChoose={(chosen) => put({ unused: chosen === 'unused' })}
          />
          .
        </p>
        <input
          className="field ml-auto !w-64"
          placeholder="Find by what they show…"
          aria-label="Pictures whose words hold"
          value={find}
          onChange={(event) => put({ find: event.target.value })}
        />
      </div>
    </>
  );
}

function Thumb({ one, isChosen, onChoose }: { one: Picture; isChosen: boolean; onChoose: () => void }) {
  const { words, uses, cost } = one;
  return (
    <li>
      <button
        type="button"
        aria-pressed={isChosen}
        className={`block w-full p-1 text-left ${isChosen ? 'bg-marker' : 'hover:bg-wash'}`}
        onClick={onChoose}
      >
        <img src={addressOf(one)} alt="" loading="lazy" className="aspect-[3/2] w-full bg-wash object-cover" />
        <span className="line-clamp-2 pt-1 text-small leading-4">{words || 'no words yet'}</span>
        <span className="flex justify-between text-small text-ink-2">
          <span>{uses === 0 ? 'unused' : `in ${plural(uses, 'article')}`}</span>
          {cost > 0 ? <span className="fig">{money(cost)}</span> : null}
        </span>
      </button>
    </li>
  );
}

function BroughtSaid({ brought: { fresh, known } }: { brought: Brought }) {
  return (
    <DoneHere>
      {plural(fresh.length, 'picture')} brought in{known > 0 ? `, ${count(known)} of them were here already` : ''}. Say
      what each shows, so that it is found.
    </DoneHere>
  );
}

const STEP = 120;

function Further({
  list,
  from,
  setFrom,
}: {
  list: { next: number | null } | undefined;
  from: number;
  setFrom: (n: number) => void;
}) {
  if (!list || (list.next === null && from === 0)) return null;
  return (
    <p className="flex gap-4 pt-4 text-small">
      {from > 0 ? (
        <button type="button" className="act quiet brackets" onClick={() => setFrom(Math.max(0, from - STEP))}>
          Newer ones
        </button>
      ) : null}
      {list.next !== null ? (
        <button type="button" className="act quiet brackets" onClick={() => setFrom(list.next!)}>
          Older ones
        </button>
      ) : null}
    </p>
  );
}

function Thumbs({
  pictures,
  shown,
  choose,
}: {
  pictures: readonly Picture[];
  shown: string | null;
  choose: (file: string) => void;
}) {
  return (
    <ul className="grid grid-cols-[repeat(auto-fill,minmax(136px,1fr))] gap-4">
      {pictures.map((one) => (
        <Thumb key={one.file} one={one} isChosen={one.file === shown} onChoose={() => choose(one.file)} />
      ))}
    </ul>
  );
}
