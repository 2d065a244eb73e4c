import type { Performer, Performers } from '../engine/performer.ts';
import { withPartnerLinks } from '../formats/catalogue/partner.ts';
import type { Tools } from '../ports/tools.ts';
import { performAim } from './aim.ts';
import { performAnswer } from './answer.ts';
import { performForEach, performMeanwhile, performUse, performWhen } from './blocks.ts';
import { performChart } from './chart.ts';
import { performCheck } from './check.ts';
import { performFetch } from './fetch.ts';
import { performGist } from './gist.ts';
import { performHear } from './hear.ts';
import { performHold } from './hold.ts';
import { performIllustrate } from './illustrate.ts';
import { performJudge } from './judge.ts';
import { performKeep } from './keep.ts';
import { performLayOut } from './layOut.ts';
import { performLink } from './link.ts';
import { performLookUp } from './lookUp.ts';
import { performNotes } from './notes.ts';
import { performOutline } from './outline.ts';
import { performPublish } from './publish.ts';
import { performPut } from './put.ts';
import { performRead } from './read.ts';
import { performTell } from './tell.ts';
import { performTitle } from './title.ts';
import { performTranslate } from './translate.ts';
import { performVary } from './vary.ts';
import { performVideos } from './videos.ts';
import { performWait } from './wait.ts';
import { performWorkOut } from './workOut.ts';
import { performWrite } from './write.ts';

/** How every kind is done. A new kind adds its file and one line here. */
export function performers(tools: Tools): Performers {
  return withLinksOfNow(tools, {
    read: performRead(tools),
    hear: performHear(tools),
    'look up': performLookUp(tools),
    gist: performGist(tools),
    aim: performAim(tools),
    judge: performJudge(tools),
    when: performWhen,
    'for each': performForEach,
    meanwhile: performMeanwhile,
    outline: performOutline(tools),
    notes: performNotes(tools),
    write: performWrite(tools),
    'lay out': performLayOut(tools),
    title: performTitle(tools),
    illustrate: performIllustrate(tools),
    chart: performChart(tools),
    videos: performVideos(tools),
    link: performLink(tools),
    vary: performVary(tools),
    translate: performTranslate(tools),
    put: performPut(tools),
    answer: performAnswer(tools),
    'work out': performWorkOut,
    fetch: performFetch(tools),
    check: performCheck(tools),
    hold: performHold,
    publish: performPublish(tools),
    wait: performWait(tools),
    keep: performKeep(tools),
    tell: performTell(tools),
    use: performUse(tools),
  });
}

/** Every step sees partners' links as they are set when it is done, not as they were when the item was found. */
function withLinksOfNow({ ground }: Tools, all: Performers): Performers {
  const seen = (perform: Performer): Performer => {
    return async (step, context) => {
      const fields = await withPartnerLinks(ground.db, context.brief.id, context.fields);
      if (fields === context.fields) return perform(step, context);
      return perform(step, {
        ...context,
        fields,
        // Whether it was given up is asked of the context itself.
        get signal() {
          return context.signal;
        },
      });
    };
  };
  return Object.fromEntries(
    Object.entries(all).map(([kind, perform]) => [kind, seen(perform as unknown as Performer)]),
  ) as unknown as Performers;
}
