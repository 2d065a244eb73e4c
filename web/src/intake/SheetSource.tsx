import { type Item, SheetPreview, type SheetSettings, type SourceWhole, Uploaded } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { ActionBar, Button, Head, Loading, Trouble } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { count, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { LeaveOut } from './items/LeaveOut.tsx';
import { LookedHere, Looks } from './LookWords.tsx';
import { SheetGrid } from './SheetGrid.tsx';
import { SheetSentence } from './SheetSentence.tsx';
import { SourceHead } from './SourceHead.tsx';
import { IntoWords, TakeButton, TakenHere, useTakingInto } from './TakeInto.tsx';
import { useChange, useLook } from './useSource.ts';

/** A sheet as it is read: its sentence, its rows with what is wrong at their cells, and what would come in next. */
export function SheetSource({ source, settings }: { source: SourceWhole; settings: SheetSettings }) {
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const change = useChange(source);
  const look = useLook(source.id);
  const preview = useQuery({
    queryKey: ['sheet', source.id, settings],
    queryFn: () => call('POST', `/sources/${source.id}/sheet`, { body: settings, answer: SheetPreview }),
    placeholderData: (before) => before,
    retry: false,
  });
  const rows = useNextRows(source);
  const { into, picked } = rows;
  const shown = preview.data?.settings.kind === 'sheet' ? preview.data.settings : settings;
  const put = (next: Partial<SheetSettings>) => change.mutate({ ...shown, ...next });
  useViewKeys({
    t: picked.size > 0 && into.pipeline && !into.take.isPending ? () => into.take.mutate({ items: [...picked] }) : null,
    l: look.isPending ? null : () => look.mutate(),
  });
  return (
    <>
      <SheetHead source={source} settings={shown} preview={preview.data} look={look} put={put} now={now} />
      <SheetSentence
        settings={shown}
        put={put}
        tables={preview.data?.tables ?? []}
        encoding={preview.data?.encoding ?? ''}
      />
      {source.trouble && !look.data ? <Trouble>{source.trouble}</Trouble> : null}
      <LookedHere looked={look.data} error={look.isError ? inWords(look.error) : null} />
      {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      {preview.isError ? <Trouble>{inWords(preview.error)}</Trouble> : null}
      <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,1fr)_280px] border-t border-ink">
        <div className="min-w-0 overflow-x-auto pl-8">
          {preview.isPending ? <Loading rows={12} /> : null}
          {preview.data ? (
            <SheetGrid preview={preview.data} settings={shown} picked={picked} put={put} onToggle={rows.toggle} />
          ) : null}
        </div>
        <Next source={source} open={rows.open} now={now} />
      </div>
      <ActionBar>
        <TakeButton
          into={into}
          chosen={picked.size === 0 ? null : { items: [...picked] }}
          says={picked.size === 0 ? 'Take what is ticked' : `Take ${plural(picked.size, 'row')}`}
        />
        <IntoWords into={into} n={picked.size} />
        <LeaveOut
          source={source.id}
          ticked={[...picked]}
          others={rows.open.filter(({ id }) => !picked.has(id)).map(({ id }) => id)}
          onDone={rows.forget}
        />
        <TakenHere into={into} />
      </ActionBar>
    </>
  );
}

/** Rows ticked until somebody ticks. */
const TICKED_FIRST = 3;

/** The rows that can be taken. Until somebody ticks, what would come in next is what is ticked. */
function useNextRows(source: SourceWhole) {
  const items = useQuery(read.items(source.id)).data?.items ?? [];
  const [ticked, setTicked] = useState<ReadonlySet<string> | null>(null);
  const forget = () => setTicked(null);
  const into = useTakingInto(source.id, 'sheet', forget);
  const open = items.filter(
    (item) => item.leftOut === null && !item.gone && !item.taken.some((taken) => taken.pipeline === into.pipeline?.id),
  );
  const there = new Set(open.map(({ id }) => id));
  const picked = ticked
    ? new Set([...ticked].filter((id) => there.has(id)))
    : new Set(open.slice(0, TICKED_FIRST).map(({ id }) => id));
  const toggle = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    setTicked(next);
  };
  return { into, open, picked, toggle, forget };
}

function SheetHead({
  source,
  settings,
  preview,
  look,
  put,
  now,
}: {
  source: SourceWhole;
  settings: SheetSettings;
  preview: SheetPreview | undefined;
  look: ReturnType<typeof useLook>;
  put: (next: Partial<SheetSettings>) => void;
  now: number;
}) {
  return (
    <SourceHead
      source={source}
      says={
        <>
          {source.lastLook === null ? 'sheet, not looked at yet' : `sheet, looked at ${moment(source.lastLook, now)}`}
          {preview
            ? `, ${plural(preview.rows, 'row')}, ${plural(settings.columns.length, 'column')}, ${count(preview.usable)} can be used`
            : ''}
        </>
      }
    >
      <a className="act quiet brackets text-small" href={`/api/sources/${source.id}/written-back`} download>
        Download with what was made
      </a>
      <Upload put={put} />
      <Button look="line" hint="L" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
        {source.lastLook === null ? 'Look at it' : 'Look again'}
      </Button>
    </SourceHead>
  );
}

function Next({ source, open, now }: { source: SourceWhole; open: readonly Item[]; now: number }) {
  const connected = source.lastLook !== null;
  return (
    <aside className="px-6 pt-2" aria-label="What comes next">
      <Head title="Would come in next" right={connected ? `${count(open.length)} to take` : ''} />
      {!connected ? <p className="py-2 text-small text-ink-3">Look at it once, and what is new stands here.</p> : null}
      {connected && open.length === 0 ? <p className="py-2 text-small text-ink-3">Nothing new.</p> : null}
      <ol className="pb-4 text-small">
        {open.slice(0, 6).map((item, i) => (
          <li key={item.id} className="flex gap-2 py-0.5">
            <span className="fig text-ink-3">{i + 1}</span> <span className="truncate">{item.subject}</span>
          </li>
        ))}
      </ol>
      <Looks source={source.id} now={now} />
    </aside>
  );
}

function Upload({ put }: { put: (next: Partial<SheetSettings>) => void }) {
  const upload = useMutation({
    mutationFn: async (file: File) => {
      const { file: digest } = await call('POST', '/uploads?mime=application/octet-stream', { file, answer: Uploaded });
      put({ file: digest, fileName: file.name, address: null });
    },
  });
  return (
    <>
      {upload.isError ? <Trouble>{inWords(upload.error)}</Trouble> : null}
      <label className="act quiet brackets cursor-pointer text-small">
        {upload.isPending ? 'Uploading…' : 'Upload a file'}
        <input
          type="file"
          className="sr-only"
          accept=".csv,.tsv,.txt,.xlsx,.ods"
          onChange={(event) => event.target.files?.[0] && upload.mutate(event.target.files[0])}
        />
      </label>
    </>
  );
}
