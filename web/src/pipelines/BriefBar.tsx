import type { PipelineWhole } from '@grivo/contract';
import { Button, type Picked } from '../design/index.ts';
import { count, plural } from '../words/figures.ts';
import { ACTS, type Chosen, type Many, STANDINGS } from './briefActs.ts';
import type { BriefView } from './useBriefView.ts';

/** What can be done to the briefs that are picked, each with how many it fits. */
export function BriefBar({
  pipeline,
  view: { rows, standing, find },
  picks: { picked, all, pickAll, none },
  many,
}: {
  pipeline: PipelineWhole;
  view: BriefView;
  picks: Picked;
  many: Many;
}) {
  const chosen = rows.filter((row) => picked.has(row.id));
  const total = STANDINGS.reduce((sum, one) => sum + pipeline.counts[one], 0);
  const matching: Chosen = { matching: { pipeline: pipeline.id, standing: standing ? [standing] : [], find } };
  const n = find === '' ? (standing ? pipeline.counts[standing] : total) : null;
  const says = n === null ? 'All that match picked' : `All ${plural(n, 'brief')} picked`;
  return (
    <div className="sticky bottom-0 z-10 flex h-13 items-center gap-5 border-t border-ink bg-sheet px-8">
      <span>{all ? says : `${plural(picked.size, 'brief')} picked`}</span>
      {ACTS.map(({ act, says, fits }) => {
        const fitting = chosen.filter((row) => fits(row, pipeline.version));
        const could = all
          ? STANDINGS.some((one) => (!standing || one === standing) && fits({ standing: one, version: 0 }, 1))
          : fitting.length > 0;
        return (
          <Button
            key={act}
            disabled={!could || many.isPending}
            busy={many.isPending && many.variables.act === act ? 'Working' : null}
            onClick={() => many.mutate({ act, on: all ? matching : { briefs: fitting.map(({ id }) => id) } })}
          >
            {all || fitting.length === picked.size || fitting.length === 0 ? says : `${says} (${fitting.length})`}
          </Button>
        );
      })}
      {all ? null : (
        <Button look="quiet" className="ml-auto" hint="A" onClick={pickAll}>
          {n === null ? 'Pick all that match' : `Pick all ${count(n)}`}
        </Button>
      )}
      <Button look="quiet" className={all ? 'ml-auto' : ''} hint="Esc" onClick={none}>
        Pick none
      </Button>
    </div>
  );
}
