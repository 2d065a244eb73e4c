import { CleanedPaste, WidenedPhrases } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, DoneHere, Empty, Head, Tick, Trouble } from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { sumOf } from '../Paste.tsx';

type Found = WidenedPhrases['phrases'][number];

/** What is found around a phrase, which of it is ticked, and how that is added to the list. */
function useWidened(source: string) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const wider = useMutation({
    mutationFn: (phrase: string) =>
      call('POST', `/sources/${source}/widen`, { body: { phrase }, answer: WidenedPhrases }),
    onSuccess: () => {
      setTicked(new Set());
      add.reset();
    },
  });
  const found = wider.data?.phrases ?? [];
  const add = useMutation({
    mutationFn: () => {
      const chosen = found.filter((one) => ticked.has(one.phrase));
      return call('POST', `/sources/${source}/keywords`, {
        body: { phrases: chosen.map(({ phrase, volume, difficulty }) => ({ phrase, volume, difficulty })) },
        answer: CleanedPaste,
      });
    },
    onSuccess: () => {
      wider.reset();
      setTicked(new Set());
      for (const key of ['sources', 'items', 'today']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  return { wider, found, ticked, setTicked, add };
}

/** Widens a phrase: what else is searched for around it, and what readers ask; the ticked are added to the list. */
export function Widen({ source, seed }: { source: string; seed: string }) {
  const { wider, found, ticked, setTicked, add } = useWidened(source);
  return (
    <section aria-label="Widen from a phrase">
      <Head title="Widen from a phrase" right="nothing is added by looking" />
      <PhraseForm seed={seed} busy={wider.isPending} onPhrase={wider.mutate} />
      {wider.isError || add.isError ? <Trouble>{inWords(wider.error ?? add.error)}</Trouble> : null}
      {add.data ? (
        <DoneHere>
          {plural(add.data.added, 'phrase')} added
          {sumOf(add.data.leftOut) > 0 ? `, ${count(sumOf(add.data.leftOut))} left out as repeats` : ''}.
        </DoneHere>
      ) : null}
      {wider.data?.trouble ? <Trouble>{wider.data.trouble}</Trouble> : null}
      {wider.data?.from === 'patterns' ? (
        <p className="pt-2 text-small text-ink-3">
          By patterns: nothing is known of how often these are searched for, or whether they are at all.
        </p>
      ) : null}
      {wider.data && found.length === 0 ? (
        <Empty>The list already has everything found around this phrase.</Empty>
      ) : null}
      {found.length > 0 ? <FoundPhrases found={found} ticked={ticked} onTicked={setTicked} /> : null}
      {found.length > 0 ? (
        <p className="pt-3">
          <Button
            look="line"
            disabled={ticked.size === 0}
            busy={add.isPending ? 'Adding' : null}
            onClick={() => add.mutate()}
          >
            {ticked.size === 0 ? 'Add what is ticked' : `Add ${plural(ticked.size, 'phrase')}`}
          </Button>
        </p>
      ) : null}
    </section>
  );
}

function PhraseForm({ seed, busy, onPhrase }: { seed: string; busy: boolean; onPhrase: (phrase: string) => void }) {
  const [phrase, setPhrase] = useState(seed);
  const enough = phrase.trim().length > 1;
  return (
    <form
      className="flex items-center gap-3 pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (enough) onPhrase(phrase);
      }}
    >
      <input
        className="field"
        aria-label="Phrase to widen"
        placeholder="kahm yeast"
        // biome-ignore lint/a11y/noAutofocus: the panel was opened to type here
        autoFocus
        value={phrase}
        onChange={(event) => setPhrase(event.target.value)}
      />
      <Button look="line" type="submit" disabled={!enough} busy={busy ? 'Widening' : null}>
        Widen
      </Button>
    </form>
  );
}

interface TickedProps {
  found: readonly Found[];
  ticked: ReadonlySet<string>;
  onTicked: (ticked: ReadonlySet<string>) => void;
}

/** What was found: questions first, then phrases. */
function FoundPhrases({ found, ticked, onTicked }: TickedProps) {
  return (
    <div className="max-h-[340px] overflow-auto pt-2">
      {[true, false].map((question) => {
        const some = found.filter((one) => one.question === question);
        return some.length === 0 ? null : (
          <Part key={String(question)} question={question} found={some} ticked={ticked} onTicked={onTicked} />
        );
      })}
    </div>
  );
}

function Part({ question, found, ticked, onTicked }: TickedProps & { question: boolean }) {
  const put = (phrases: readonly Found[], on: boolean) => {
    const next = new Set(ticked);
    for (const { phrase } of phrases) {
      if (on) next.add(phrase);
      else next.delete(phrase);
    }
    onTicked(next);
  };
  return (
    <div className="pt-2">
      <p className="flex items-center gap-2 border-b border-rule text-small text-ink-2">
        <Tick
          label={question ? 'All questions' : 'All phrases'}
          state={found.every((one) => ticked.has(one.phrase))}
          onChange={(on) => put(found, on)}
        />
        {question ? 'What readers ask' : 'What is searched for'}
        <span className="fig ml-auto text-ink-3">{found.length}</span>
      </p>
      <ul>
        {found.map((one) => (
          <li
            key={one.phrase}
            className={`row grid h-6 grid-cols-[minmax(0,1fr)_64px_40px] items-center ${ticked.has(one.phrase) ? 'picked' : ''}`}
          >
            <Tick label={one.phrase} state={ticked.has(one.phrase)} onChange={(on) => put([one], on)}>
              <span className="truncate">{one.phrase}</span>
            </Tick>
            <span className="fig text-right">{one.volume === null ? '' : count(one.volume)}</span>
            <span className="fig text-right text-ink-3">{one.difficulty ?? ''}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
