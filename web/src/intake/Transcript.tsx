import { clockOf, fold } from '@grivo/core';
import { useMemo, useState } from 'react';
import { Head } from '../design/index.ts';
import { count, plural } from '../words/figures.ts';
import type { RangeProps } from './TimeRange.tsx';

type Line = RangeProps['video']['lines'][number];

/** What is said, chapter by chapter, with the part that is to be read marked at its edge; words can be found in it. */
export function Transcript({ video, range, onChange }: RangeProps) {
  const [find, setFind] = useState('');
  const [from, setFrom] = useState<number | null>(null);
  const { chapters, lines, words, seconds } = video;
  const wanted = fold(find.trim());
  const shown = useMemo(
    () => (wanted === '' ? lines : lines.filter(({ text }) => fold(text).includes(wanted))),
    [lines, wanted],
  );
  const chapterAt = (start: number) => chapters.findLast((chapter) => chapter.start <= start + 0.5);
  const press = ({ start, end }: Line) => {
    if (from !== null) onChange({ from: Math.floor(Math.min(from, start)), to: Math.ceil(Math.max(from, end)) });
    setFrom(from === null ? start : null);
  };
  return (
    <section aria-label="What is said" className="min-w-0">
      <Head
        title="What is said"
        right={`${count(words)} words, ${Math.round(words / Math.max(1, seconds / 60))} a minute`}
      />
      <div className="flex items-baseline gap-4 py-1 text-small text-ink-3">
        <input
          className="field !h-7 !w-56"
          placeholder="Find words…"
          aria-label="Find in what is said"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <span>{wanted === '' ? leftWords(video.left) : plural(shown.length, 'sentence')}</span>
      </div>
      <ol className="max-h-[calc(100vh-366px)] min-h-[220px] overflow-auto" tabIndex={0} aria-label="Sentences">
        {shown.map((line, i) => {
          const chapter = chapterAt(line.start);
          const first = i === 0 || chapterAt(shown[i - 1]!.start) !== chapter;
          return (
            <li key={`${line.start}${i}`}>
              {first && chapter && chapter.title !== '' ? (
                <p className="grid grid-cols-[56px_1fr_auto] items-baseline pt-2 font-semibold">
                  <span className="fig">{clockOf(chapter.start)}</span>
                  {chapter.title}
                  <span className="fig font-normal text-ink-3">{plural(chapter.words, 'word')}</span>
                </p>
              ) : null}
              <Sentence
                line={line}
                inside={line.start >= range.from - 0.5 && line.start < range.to}
                begun={from === line.start}
                onPress={() => press(line)}
              />
            </li>
          );
        })}
      </ol>
    </section>
  );
}

/** What was left out of what is said, or what to do next. */
function leftWords(left: RangeProps['video']['left']): string {
  const some = Object.entries(left).flatMap(([what, n]) => (n > 0 ? [`${n} ${what}`] : []));
  return some.length > 0 ? `left out: ${some.join(', ')}` : 'press two times to choose a part';
}

/** One sentence; the first pressed begins a part, the second ends it. */
function Sentence({
  line,
  inside,
  begun,
  onPress,
}: {
  line: Line;
  inside: boolean;
  begun: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className={`brackets grid w-full grid-cols-[48px_8px_1fr] items-stretch py-0.5 text-left leading-5 ${inside ? '' : 'text-ink-3'} ${begun ? 'bg-marker-wash' : ''}`}
      onClick={onPress}
    >
      <span className="fig leading-5 text-ink-3">{clockOf(line.start)}</span>
      <span className={`my-0.5 w-1 ${inside ? 'bg-marker' : ''}`} />
      <span>{line.text}</span>
    </button>
  );
}
