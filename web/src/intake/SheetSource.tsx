import { SheetPreview, type SheetSettings, type SourceWhole, Uploaded } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import {
  ActionBar,
  Button,
  ChoiceEditor,
  Head,
  Loading,
  NumberEditor,
  TextEditor,
  Trouble,
  Word,
} from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { count, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { LeaveOut } from './items/LeaveOut.tsx';
import { ExcludeWord, LookedHere, Looks, StartWord } from './LookWords.tsx';
import { SheetGrid } from './SheetGrid.tsx';
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
  const items = useQuery(read.items(source.id)).data?.items ?? [];
  const [ticked, setTicked] = useState<ReadonlySet<string> | null>(null);
  const into = useTakingInto(source.id, 'sheet', () => setTicked(null));
  const open = items.filter(
    (item) => item.leftOut === null && !item.gone && !item.taken.some((taken) => taken.pipeline === into.pipeline?.id),
  );
  // Until somebody ticks, what would come in next is what is ticked.
  const most = 3;
  const there = new Set(open.map(({ id }) => id));
  const picked = ticked
    ? new Set([...ticked].filter((id) => there.has(id)))
    : new Set(open.slice(0, most).map(({ id }) => id));
  const connected = source.lastLook !== null;
  const shown = preview.data?.settings.kind === 'sheet' ? preview.data.settings : settings;
  const put = (next: Partial<SheetSettings>) => change.mutate({ ...shown, ...next });
  const toggle = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    setTicked(next);
  };
  useViewKeys({
    t: picked.size > 0 && into.pipeline && !into.take.isPending ? () => into.take.mutate({ items: [...picked] }) : null,
    l: look.isPending ? null : () => look.mutate(),
  });
  return (
    <>
      <SourceHead
        source={source}
        says={
          <>
            {connected ? `sheet, looked at ${moment(source.lastLook!, now)}` : 'sheet, not looked at yet'}
            {preview.data
              ? `, ${plural(preview.data.rows, 'row')}, ${plural(shown.columns.length, 'column')}, ${count(preview.data.usable)} can be used`
              : ''}
          </>
        }
      >
        <a className="act quiet brackets text-small" href={`/api/sources/${source.id}/written-back`} download>
          Download with what was made
        </a>
        <Upload put={put} />
        <Button look="line" hint="L" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
          {connected ? 'Look again' : 'Look at it'}
        </Button>
      </SourceHead>
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
            <SheetGrid preview={preview.data} settings={shown} picked={picked} put={put} onToggle={toggle} />
          ) : null}
        </div>
        <aside className="px-6 pt-2" aria-label="What comes next">
          <Head title="Would come in next" right={connected ? `${count(open.length)} to take` : ''} />
          {!connected ? (
            <p className="py-2 text-small text-ink-3">Look at it once, and what is new stands here.</p>
          ) : null}
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
          others={open.filter(({ id }) => !picked.has(id)).map(({ id }) => id)}
          onDone={() => setTicked(null)}
        />
        <TakenHere into={into} />
      </ActionBar>
    </>
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

const SEPARATOR: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };

function SheetSentence({
  settings,
  put,
  tables,
  encoding,
}: {
  settings: SheetSettings;
  put: (next: Partial<SheetSettings>) => void;
  tables: readonly string[];
  encoding: string;
}) {
  const headers = settings.columns.map(({ header }) => ({ value: header, says: header, does: '' }));
  return (
    <p className="-mx-8 border-t border-ink bg-sheet px-8 py-2 text-proc">
      Look at{' '}
      <Word
        label="Where it is"
        editor={(close) => (
          <TextEditor
            label="Address"
            value={settings.address ?? ''}
            hint="An address as https://…; a file stays one without."
            onChange={(text) => /^https?:\/\/\S+$/.test(text.trim()) && put({ address: text.trim() })}
            onDone={close}
          />
        )}
      >
        {settings.address ? settings.address.replace(/^https?:\/\//, '') : settings.fileName || 'no file yet'}
      </Word>
      {tables.length > 1 ? (
        <>
          , table{' '}
          <Word
            label="Table"
            editor={(close) => (
              <ChoiceEditor
                value={settings.table ?? tables[0]!}
                options={tables.map((name) => ({ value: name, says: name, does: '' }))}
                onChoose={(table) => {
                  put({ table, columns: [], header: null });
                  close();
                }}
              />
            )}
          >
            {settings.table ?? tables[0]!}
          </Word>
        </>
      ) : null}
      ; the header is{' '}
      <Word
        label="Header"
        editor={() => (
          <NumberEditor
            label="Row of the header"
            value={settings.header}
            least={1}
            most={1_000}
            none="there is none"
            onChange={(header) => put({ header, columns: [] })}
          />
        )}
      >
        {settings.header === null ? 'in no row' : `row ${settings.header}`}
      </Word>
      {encoding === 'workbook' ? null : (
        <>
          , cells are separated by{' '}
          <Word
            label="Separator"
            editor={(close) => (
              <ChoiceEditor
                value={settings.separator}
                options={[
                  { value: 'guess', says: 'whatever the file uses', does: 'found from the first lines' },
                  ...Object.entries(SEPARATOR).map(([value, says]) => ({ value, says, does: '' })),
                ]}
                onChoose={(separator) => {
                  put({ separator: separator as SheetSettings['separator'], columns: [] });
                  close();
                }}
              />
            )}
          >
            {settings.separator === 'guess' ? 'whatever the file uses' : SEPARATOR[settings.separator]!}
          </Word>
          {' in '}
          <Word
            label="Encoding"
            editor={(close) => (
              <ChoiceEditor
                value={settings.encoding}
                options={['guess', 'utf-8', 'windows-1252', 'utf-16le', 'utf-16be'].map((value) => ({
                  value,
                  says: value === 'guess' ? 'found from the file' : value.toUpperCase(),
                  does: value === 'guess' && encoding !== '' ? `now ${encoding.toUpperCase()}` : '',
                }))}
                onChoose={(value) => {
                  put({ encoding: value as SheetSettings['encoding'] });
                  close();
                }}
              />
            )}
          >
            {settings.encoding === 'guess'
              ? encoding.toUpperCase() || 'found from the file'
              : settings.encoding.toUpperCase()}
          </Word>
        </>
      )}
      ; start from <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />, then take new
      rows,{' '}
      <Word
        label="Changed rows"
        editor={(close) => (
          <ChoiceEditor
            value={String(settings.changed)}
            options={[
              { value: 'false', says: 'not changed ones', does: 'a row is taken once, whatever becomes of it' },
              { value: 'true', says: 'and changed ones', does: 'a row comes in again when a cell of it has changed' },
            ]}
            onChoose={(value) => {
              put({ changed: value === 'true' });
              close();
            }}
          />
        )}
      >
        {settings.changed ? 'and changed ones' : 'not changed ones'}
      </Word>
      , leave out titles with <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} />;{' '}
      <Word
        label="Title"
        editor={(close) => (
          <ChoiceEditor
            value={settings.title ?? ''}
            options={headers}
            onChoose={(title) => {
              put({ title });
              close();
            }}
          />
        )}
      >
        {settings.title ?? 'no column'}
      </Word>{' '}
      is the title,{' '}
      <Word
        label="What tells rows apart"
        editor={() => (
          <ul className="max-h-72 overflow-auto">
            {headers.map(({ value }) => (
              <li key={value}>
                <label className="flex items-center gap-2 py-0.5">
                  <input
                    type="checkbox"
                    checked={settings.identity.includes(value)}
                    onChange={(event) =>
                      put({
                        identity: event.target.checked
                          ? [...settings.identity, value]
                          : settings.identity.filter((one) => one !== value),
                      })
                    }
                  />
                  {value}
                </label>
              </li>
            ))}
          </ul>
        )}
      >
        {settings.identity.join(' and ') || 'the whole row'}
      </Word>{' '}
      tells rows apart.
    </p>
  );
}
