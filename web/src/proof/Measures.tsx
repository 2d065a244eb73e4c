import type { ArticleWhole } from '@grivo/contract';
import { type Block, doubtWords } from '@grivo/core';
import { Head, Ruler } from '../design/index.ts';

type Measure = ArticleWhole['measures'][number];

/** Whether a measure lies where it should. */
export function isInRange({ value, least, most }: Pick<Measure, 'value' | 'least' | 'most'>): boolean {
  return (least === null || value >= least) && (most === null || value <= most);
}

/** The figures about an article, each with its range and what to do; those about one place lead there. */
export function Measures({
  measures,
  doubts,
  onPlace,
}: Pick<ArticleWhole, 'measures' | 'doubts'> & {
  /** Leads to a block. */
  onPlace: (block: string) => void;
}) {
  const ranged = measures.filter(({ least, most }) => least !== null || most !== null);
  const well = ranged.filter(isInRange).length;
  return (
    <>
      <Head title="Measures" right={`${well} of ${ranged.length} in range`} />
      {measures.map((measure) => (
        <MeasureLine key={measure.name} measure={measure} onPlace={onPlace} />
      ))}
      {doubts.length > 0 ? (
        <>
          <p className="pt-5 font-semibold">Not as in the sources</p>
          <ul className="pt-1 text-small text-red">
            {doubts.map((doubt) => (
              <li key={`${doubt.block} ${doubt.words}`}>
                <button type="button" className="brackets block min-h-6 text-left" onClick={() => onPlace(doubt.block)}>
                  {doubtWords(doubt)}
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  );
}

function MeasureLine({
  measure: { name, value, least, most, unit, says, place },
  onPlace,
}: {
  measure: Measure;
  onPlace: (block: string) => void;
}) {
  const wrong = !isInRange({ value, least, most });
  const top = Math.max(value, most ?? 0, least ?? 0, 1) * 1.25;
  return (
    <div className="pt-3">
      <p className={`flex items-baseline justify-between gap-3 ${wrong ? 'text-red' : ''}`}>
        {place !== null && wrong ? (
          <button type="button" className="brackets text-left underline" onClick={() => onPlace(place)}>
            {name}
          </button>
        ) : (
          name
        )}
        <span className="fig text-right">
          {value.toLocaleString('en-GB')} {unit}
        </span>
      </p>
      {least !== null || most !== null ? (
        <Ruler
          label={`${name}: ${value} ${unit}`}
          value={value}
          from={0}
          to={unit === '%' ? 100 : top}
          least={least}
          most={most}
        />
      ) : null}
      <p className="text-small text-ink-3">{says}</p>
    </div>
  );
}

/** Leads to a block of the page. */
export function goToBlock(block: Block['id']): void {
  document.getElementById(`block-${block}`)?.scrollIntoView({ block: 'center' });
}
