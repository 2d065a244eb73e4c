import { CleanedPaste } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, DoneHere, Trouble } from '../design/index.ts';
import { count, plural } from '../words/figures.ts';
import { bare, type FilePhrase } from './filePhrase.ts';
import { readKeywordFile } from './readFile.ts';

type Cleaned = z.infer<typeof CleanedPaste>;

/** Phrases of a file sent at once. */
const AT_ONCE = 5_000;

/** A file whose phrases stand in the field. */
interface PastedFile {
  name: string;
  phrases: ReadonlyMap<string, FilePhrase>;
  /** What of it was taken, in words. */
  from: string;
}

interface PasteProps {
  /** The list they go into, made when it is needed first. */
  into: () => Promise<string>;
  /** Whether only lines part what is pasted. */
  byLine?: boolean;
  autoFocus?: boolean;
  onAdded?: (cleaned: Cleaned & { source: string }) => void;
}

/** What stands in the field, and the way of it into the list. */
function usePaste({ into, byLine = false, onAdded }: PasteProps) {
  const [text, setText] = useState('');
  const [file, setFile] = useState<PastedFile | null>(null);
  // What a file parted stays parted so: its phrases may hold commas.
  const typed = text
    .split(file || byLine ? /\n/ : /[\n,;\t]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  const add = useMutation({
    mutationFn: async () => {
      const source = await into();
      return { source, ...(file ? await addParts(source, typed, file) : await addTo(source, { paste: text })) };
    },
    onSuccess: (cleaned) => {
      setText('');
      setFile(null);
      for (const key of ['sources', 'items', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
      onAdded?.(cleaned);
    },
  });
  const readFile = useMutation({
    mutationFn: async (chosen: File) => ({ name: chosen.name, ...(await readKeywordFile(chosen)) }),
    onSuccess: ({ name, phrases, column }) => {
      setText(phrases.map(({ phrase }) => phrase).join('\n'));
      setFile({ name, phrases: new Map(phrases.map((one) => [one.phrase, one])), from: column });
    },
  });
  const type = (next: string) => {
    setText(next);
    if (next.trim() === '') setFile(null);
  };
  return { text, type, file, lines: typed.length, add, readFile };
}

const addTo = (source: string, body: object) =>
  call('POST', `/sources/${source}/keywords`, { body, answer: CleanedPaste });

/** A long file goes in parts, each cleaned against what the ones before have added. */
async function addParts(source: string, typed: readonly string[], file: PastedFile): Promise<Cleaned> {
  const sum: Cleaned = { added: 0, evened: 0, measured: 0, leftOut: {}, dropped: [] };
  for (let at = 0; at < typed.length; at += AT_ONCE) {
    const part = typed.slice(at, at + AT_ONCE).map((line) => file.phrases.get(line) ?? bare(line));
    const { added, evened, measured, leftOut, dropped } = await addTo(source, { phrases: part });
    sum.added += added;
    sum.evened += evened;
    sum.measured += measured;
    for (const [reason, n] of Object.entries(leftOut)) sum.leftOut[reason] = (sum.leftOut[reason] ?? 0) + n;
    sum.dropped.push(...dropped);
  }
  return sum;
}

/** Paste or type phrases in any mixture of commas, semicolons, tabs and lines, or read a file; they come out clean. */
export function Paste(props: PasteProps) {
  const { text, type, file, lines, add, readFile } = usePaste(props);
  return (
    <div>
      <textarea
        className="field !border border-rule-strong !bg-sheet"
        rows={6}
        aria-label="Phrases"
        placeholder={
          'how much salt for sauerkraut, fermenting garlic in honey\none phrase a line, or separated by commas, semicolons or tabs'
        }
        // biome-ignore lint/a11y/noAutofocus: the paste is what the page was opened for
        autoFocus={props.autoFocus ?? false}
        value={text}
        onChange={(event) => type(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) add.mutate();
        }}
        onDrop={(event) => {
          const dropped = event.dataTransfer.files[0];
          if (!dropped) return;
          event.preventDefault();
          readFile.mutate(dropped);
        }}
      />
      <div className="flex items-baseline gap-4 pt-2">
        <Button
          look="line"
          disabled={lines === 0}
          busy={add.isPending ? 'Cleaning' : null}
          onClick={() => add.mutate()}
          hint="Ctrl Enter"
        >
          {lines === 0 ? 'Clean and add' : `Clean and add ${count(lines)}`}
        </Button>
        <PickFile busy={readFile.isPending} onFile={readFile.mutate} />
      </div>
      <p className="pt-2 text-small text-ink-3">
        {file
          ? `${plural(file.phrases.size, 'phrase')} from ${file.name}, ${file.from}`
          : 'Files as CSV or text; columns of volume and difficulty come along.'}
      </p>
      {readFile.isError ? <Trouble>{readFile.error.message}</Trouble> : null}
      {add.isError ? <Trouble>{inWords(add.error)}</Trouble> : null}
      {add.data ? <Became {...add.data} /> : null}
    </div>
  );
}

function PickFile({ busy, onFile }: { busy: boolean; onFile: (file: File) => void }) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button look="quiet" busy={busy ? 'Reading' : null} onClick={() => picker.current?.click()}>
        Read a file
      </Button>
      <input
        ref={picker}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        className="hidden"
        aria-label="A file of keywords"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) onFile(chosen);
          event.target.value = '';
        }}
      />
    </>
  );
}

/** How many were left out in all. */
export const sumOf = (leftOut: Cleaned['leftOut']) => Object.values(leftOut).reduce((sum, n) => sum + n, 0);

const SAYS: Record<string, string> = {
  repeat: 'in the list already',
  'near repeat': 'nearly the same as one in the list',
  'left out before': 'left out of this list before',
  heading: 'the head of a column',
  'error cell': 'an empty or broken cell',
  number: 'a number only',
  'one letter': 'one letter only',
  address: 'an address',
  'mail address': 'a mail address',
  total: 'a sum',
  'note to self': 'a note, no phrase',
  'no letters': 'no words',
  'too long': 'too long for a phrase',
  empty: 'empty',
};

/** What became of a paste, with the reason for everything that was left out; each can be taken in all the same. */
export function Became({ added, evened, measured, leftOut, dropped, source }: Cleaned & { source: string }) {
  const all = sumOf(leftOut);
  return (
    <div className="pt-3">
      <DoneHere>
        {plural(added, 'phrase')} added
        {evened > 0 ? `, ${count(evened)} of them tidied` : ''}
        {measured > 0 ? `, figures of ${plural(measured, 'phrase')} brought up to date` : ''}
        {all > 0 ? `; ${count(all)} left out` : ''}.
      </DoneHere>
      {all > 0 ? (
        <details className="pt-1">
          <summary className="brackets w-fit cursor-pointer text-small text-ink-2">
            Left out:{' '}
            {Object.entries(leftOut)
              .map(([reason, n]) => `${SAYS[reason] ?? reason}${n > 1 ? ` (${count(n)})` : ''}`)
              .join(', ')}
          </summary>
          <Dropped source={source} dropped={dropped} />
          {all > dropped.length ? (
            <p className="pt-1 text-small text-ink-3">The first {count(dropped.length)} are shown.</p>
          ) : null}
        </details>
      ) : null}
    </div>
  );
}

function Dropped({ source, dropped }: { source: string; dropped: Cleaned['dropped'] }) {
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set());
  const keep = useMutation({
    mutationFn: (phrase: string) =>
      addTo(source, { phrases: [{ phrase, volume: null, difficulty: null }], asIs: true }),
    onSuccess: (_, phrase) => {
      setKept((before) => new Set([...before, phrase]));
      for (const key of ['sources', 'items', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  const isKept = ({ phrase }: Cleaned['dropped'][number]) => kept.has(phrase);
  return (
    <>
      {keep.isError ? <Trouble>{inWords(keep.error)}</Trouble> : null}
      <ul className="max-h-48 overflow-auto">
        {dropped.map((one, i) => (
          <li
            key={i}
            className="grid min-h-6 grid-cols-[1fr_1fr_auto] items-center gap-2 border-b border-rule-soft text-small"
          >
            {isKept(one) ? (
              <span className="truncate">{one.phrase}</span>
            ) : (
              <s className="truncate text-ink-3">{one.phrase}</s>
            )}
            <span className="truncate text-ink-2">
              {SAYS[one.reason] ?? one.reason}
              {one.of && one.of !== one.phrase ? `: ‘${one.of}’` : ''}
            </span>
            {one.reason === 'repeat' || one.reason === 'empty' ? (
              <span />
            ) : isKept(one) ? (
              <span>taken in</span>
            ) : (
              <Button
                look="word"
                busy={keep.isPending && keep.variables === one.phrase ? 'Taking it in' : null}
                onClick={() => keep.mutate(one.phrase)}
              >
                Take it in
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
