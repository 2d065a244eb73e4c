import type { SheetSettings } from '@grivo/contract';
import { ChoiceWord, NumberEditor, TextEditor, Tick, Word } from '../design/index.ts';
import { ExcludeWord, StartWord } from './LookWords.tsx';

interface SentenceProps {
  settings: SheetSettings;
  put: (next: Partial<SheetSettings>) => void;
  tables: readonly string[];
  encoding: string;
}

const SEPARATOR: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };

const SEPARATORS = [
  { value: 'guess', says: 'whatever the file uses', does: 'found from the first lines' },
  ...Object.entries(SEPARATOR).map(([value, says]) => ({ value, says, does: '' })),
] as { value: SheetSettings['separator']; says: string; does: string }[];

const ENCODINGS = ['guess', 'utf-8', 'windows-1252', 'utf-16le', 'utf-16be'] as const;

const CHANGED = [
  { value: 'false', says: 'not changed ones', does: 'a row is taken once, whatever becomes of it' },
  { value: 'true', says: 'and changed ones', does: 'a row comes in again when a cell of it has changed' },
];

/** How a sheet is read, as one sentence. */
export function SheetSentence(props: SentenceProps) {
  const { settings, put, encoding } = props;
  const headers = settings.columns.map(({ header }) => ({ value: header, says: header, does: '' }));
  return (
    <p className="-mx-8 border-t border-ink bg-sheet px-8 py-2 text-proc">
      <Where {...props} />; the header is{' '}
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
      {encoding === 'workbook' ? null : <HowWritten {...props} />}; start from{' '}
      <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />, then take new rows,{' '}
      <ChoiceWord
        label="Changed rows"
        value={String(settings.changed)}
        options={CHANGED}
        onChoose={(value) => put({ changed: value === 'true' })}
      />
      , leave out titles with <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} />;{' '}
      <ChoiceWord label="Title" value={settings.title ?? ''} options={headers} onChoose={(title) => put({ title })}>
        {settings.title ?? 'no column'}
      </ChoiceWord>{' '}
      is the title, <IdentityWord {...props} /> tells rows apart.
    </p>
  );
}

function Where({ settings, put, tables }: SentenceProps) {
  const { address, fileName, table } = settings;
  return (
    <>
      Look at{' '}
      <Word
        label="Where it is"
        editor={(close) => (
          <TextEditor
            label="Address"
            value={address ?? ''}
            hint="An address as https://…; a file stays one without."
            onChange={(text) => /^https?:\/\/\S+$/.test(text.trim()) && put({ address: text.trim() })}
            onDone={close}
          />
        )}
      >
        {address ? address.replace(/^https?:\/\//, '') : fileName || 'no file yet'}
      </Word>
      {tables.length > 1 ? (
        <>
          , table{' '}
          <ChoiceWord
            label="Table"
            value={table ?? tables[0]!}
            options={tables.map((name) => ({ value: name, says: name, does: '' }))}
            onChoose={(chosen) => put({ table: chosen, columns: [], header: null })}
          />
        </>
      ) : null}
    </>
  );
}

function HowWritten({ settings: { separator, encoding: chosen }, put, encoding }: SentenceProps) {
  const found = encoding.toUpperCase();
  return (
    <>
      , cells are separated by{' '}
      <ChoiceWord
        label="Separator"
        value={separator}
        options={SEPARATORS}
        onChoose={(next) => put({ separator: next, columns: [] })}
      />
      {' in '}
      <ChoiceWord
        label="Encoding"
        value={chosen}
        options={ENCODINGS.map((value) => ({
          value,
          says: value === 'guess' ? 'found from the file' : value.toUpperCase(),
          does: value === 'guess' && found !== '' ? `now ${found}` : '',
        }))}
        onChoose={(next) => put({ encoding: next })}
      >
        {chosen === 'guess' ? found || 'found from the file' : chosen.toUpperCase()}
      </ChoiceWord>
    </>
  );
}

function IdentityWord({ settings: { columns, identity }, put }: SentenceProps) {
  return (
    <Word
      label="What tells rows apart"
      editor={() => (
        <ul className="max-h-72 overflow-auto">
          {columns.map(({ header }) => (
            <li key={header}>
              <Tick
                label={header}
                state={identity.includes(header)}
                onChange={(on) =>
                  put({ identity: on ? [...identity, header] : identity.filter((one) => one !== header) })
                }
              >
                {header}
              </Tick>
            </li>
          ))}
        </ul>
      )}
    >
      {identity.join(' and ') || 'the whole row'}
    </Word>
  );
}
