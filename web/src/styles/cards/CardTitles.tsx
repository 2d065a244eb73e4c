import type { CardSample, CardSamples } from '@grivo/contract';
import { Button, Head } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import { svgAddress } from './CardCanvas.tsx';

/** The card with titles of ours, from the shortest to the longest; one of them is shown large. */
export function CardTitles({
  drawn: { madeUp, samples },
  main,
  shown,
  show,
  others,
}: {
  drawn: CardSamples;
  /** Which of its texts the title is in. */
  main: number;
  shown: number;
  show: (n: number) => void;
  others: () => void;
}) {
  const stopped = samples.filter(({ problems }) => problems.some(({ stops }) => stops)).length;
  return (
    <>
      <Head
        title={madeUp ? 'Titles that are made up, short to long' : `${samples.length} of our titles, short to long`}
        right={
          madeUp ? (
            'there is no article yet'
          ) : (
            <Button look="quiet" anyone onClick={others}>
              Take others
            </Button>
          )
        }
      />
      {stopped > 0 ? (
        <p className="wrong pt-1 text-small" role="status">
          {plural(stopped, 'title')} of these {stopped === 1 ? 'does' : 'do'} not fit: an article with one gets what the
          step says instead.
        </p>
      ) : null}
      <ol>
        {samples.map((sample, n) => (
          <li key={sample.title} className="border-b border-rule-soft">
            <button
              type="button"
              aria-pressed={n === shown}
              className={`flex w-full gap-4 py-2 text-left hover:bg-marker-wash ${n === shown ? 'bg-marker-wash' : ''}`}
              onClick={() => show(n)}
            >
              <img src={svgAddress(sample.svg)} alt="" className="w-[132px] self-start border border-rule" />
              <span className="min-w-0">
                <span className="block leading-5">{sample.title}</span>
                <Said sample={sample} main={main} />
              </span>
            </button>
          </li>
        ))}
      </ol>
    </>
  );
}

function Said({ sample: { title, texts, problems }, main }: { sample: CardSample; main: number }) {
  const text = texts[main];
  const worst = problems.find(({ stops }) => stops) ?? problems[0];
  return (
    <span className="block text-small text-ink-3">
      {plural(title.length, 'character')}
      {text && text.lines.length > 0 ? `, ${text.size} px, ${plural(text.lines.length, 'line')}` : ''}
      {worst ? (
        <span className={`block ${worst.stops ? 'text-red' : 'text-ink-2'}`}>
          {worst.sentence} {worst.mend}
        </span>
      ) : null}
    </span>
  );
}
