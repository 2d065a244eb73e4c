import type { Item, VideoText } from '@grivo/contract';
import { clockOf, countWords } from '@grivo/core';
import { Button, Head, NumberEditor, Ruler, Word } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { count, plural } from '../words/figures.ts';
import { leftOutWords } from './LookWords.tsx';
import { IntoWords, TakenHere, type TakingInto } from './TakeInto.tsx';
import { TakenBy } from './TakenBy.tsx';
import type { Range } from './TimeRange.tsx';

interface HeardProps {
  text: VideoText;
  item: Item;
  part: Range;
  whole: Range;
  setRange: (range: Range | null) => void;
  into: TakingInto;
}

/** What would be read of a video, how much it carries, and the button that takes it. */
export function WouldBeHeard(props: HeardProps) {
  const { text, item, part, whole, setRange, into } = props;
  const inside = text.lines.filter(({ start }) => start >= part.from - 0.5 && start < part.to);
  const words = inside.reduce((sum, line) => sum + countWords(line.text, text.language), 0);
  const chapters = text.chapters.filter(({ start }, i) => {
    const end = text.chapters[i + 1]?.start ?? text.seconds;
    return start < part.to && end > part.from;
  });
  const partly = part.from > whole.from || part.to < whole.to;
  return (
    <>
      <Head title="What would be read" />
      <p className="py-2 text-proc">
        Read the captions from{' '}
        <TimeWord label="From" at={part.from} most={part.to - 1} onChange={(from) => setRange({ ...part, from })} /> to{' '}
        <TimeWord label="To" at={part.to} most={whole.to} onChange={(to) => setRange({ ...part, to })} />;{' '}
        {chapters.length > 1 ? `its ${chapters.length} chapters can give the sections.` : 'it has no chapters there.'}
      </p>
      {partly ? (
        <Button look="quiet" className="text-small" onClick={() => setRange(null)}>
          all of it
        </Button>
      ) : null}
      <Carries words={words} asked={wordsAsked(into)} text={text} />
      <div className="pt-4">
        <Head title="Taken by" right={item.taken.length === 0 ? 'nobody yet' : plural(item.taken.length, 'pipeline')} />
      </div>
      <TakenBy item={item} pipelines={into.pipelines} />
      {item.leftOut ? (
        <p className="pt-2 text-small text-ink-2">
          Left out: {leftOutWords(item.leftOut, item.leftDetail)}. You can take it anyway.
        </p>
      ) : null}
      <TakePart {...props} partly={partly} can={words > 0} />
    </>
  );
}

/** How many words so many spoken ones carry, against what the pipeline asks for. */
function Carries({ words, asked, text }: { words: number; asked: number | null; text: VideoText }) {
  // The same share as of the whole.
  const carries = Math.floor((words / Math.max(1, text.words)) * text.carries);
  return (
    <>
      <p className="pt-2">
        <b className="font-semibold">{count(words)}</b> spoken words are enough for about{' '}
        <b className="font-semibold">{count(carries)}</b> written ones
        {asked === null ? (
          '.'
        ) : (
          <>
            ; the pipeline asks for <b className="font-semibold">{count(asked)}</b>.
          </>
        )}
      </p>
      {asked === null ? null : (
        <div className="pt-2">
          <Ruler
            label={`Asked ${asked}, carried ${carries}`}
            value={asked}
            from={0}
            to={Math.max(words, asked) * 1.1}
            least={0}
            most={carries}
          />
          {asked > carries ? (
            <p className="text-small text-red">
              The pipeline asks for more than the video has material for; the article would have about {count(carries)}.
            </p>
          ) : null}
        </div>
      )}
    </>
  );
}

function TakePart({ item, part, into, partly, can }: HeardProps & { partly: boolean; can: boolean }) {
  const taken = item.taken.some((one) => one.pipeline === into.pipeline?.id);
  const press = () => into.take.mutate({ items: [item.id], range: partly ? part : null });
  const takes = can && into.pipeline !== undefined && !taken && !into.take.isPending;
  useViewKeys({ t: takes ? press : null });
  const says = partly ? `Take ${clockOf(part.from)} to ${clockOf(part.to)}` : 'Take it';
  return (
    <div className="pt-3">
      <Button look="solid" hint="T" disabled={!takes} busy={into.take.isPending ? 'Taking' : null} onClick={press}>
        {taken ? 'This pipeline took it before' : says}
      </Button>
      <p className="pt-1.5">
        <IntoWords into={into} n={1} />
      </p>
      <TakenHere into={into} />
    </div>
  );
}

/** Words the pipeline's write step asks for, read from its sentence. */
function wordsAsked({ pipeline }: TakingInto): number | null {
  const sentence = pipeline?.sentences.find((one) => /^Write about [\d,]+ words/.test(one));
  const figure = /^Write about ([\d,]+) words/.exec(sentence ?? '')?.[1];
  return figure ? Number(figure.replace(/,/g, '')) : null;
}

function TimeWord({
  label,
  at,
  most,
  onChange,
}: {
  label: string;
  at: number;
  most: number;
  onChange: (at: number) => void;
}) {
  return (
    <Word
      label={label}
      editor={() => (
        <NumberEditor
          label={`${label}, in seconds`}
          value={at}
          least={0}
          most={most}
          unit={`seconds, ${clockOf(at)}`}
          onChange={(next) => next !== null && onChange(next)}
        />
      )}
    >
      {clockOf(at)}
    </Word>
  );
}
