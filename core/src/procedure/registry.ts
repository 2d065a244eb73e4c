import { z } from 'zod';
import { stepsAre } from './anySteps.ts';
import { aim } from './kinds/aim.ts';
import { answer } from './kinds/answer.ts';
import { chart } from './kinds/chart.ts';
import { check } from './kinds/check.ts';
import { fetchStep } from './kinds/fetch.ts';
import { forEach } from './kinds/forEach.ts';
import { gist } from './kinds/gist.ts';
import { hear } from './kinds/hear.ts';
import { hold } from './kinds/hold.ts';
import { illustrate } from './kinds/illustrate.ts';
import { judge } from './kinds/judge.ts';
import { keep } from './kinds/keep.ts';
import { layOut } from './kinds/layOut.ts';
import { link } from './kinds/link.ts';
import { lookUp } from './kinds/lookUp.ts';
import { meanwhile } from './kinds/meanwhile.ts';
import { notes } from './kinds/notes.ts';
import { outline } from './kinds/outline.ts';
import { publish } from './kinds/publish.ts';
import { put } from './kinds/put.ts';
import { read } from './kinds/read.ts';
import { take } from './kinds/take.ts';
import { tell } from './kinds/tell.ts';
import { title } from './kinds/title.ts';
import { translate } from './kinds/translate.ts';
import { use } from './kinds/use.ts';
import { vary } from './kinds/vary.ts';
import { videos } from './kinds/videos.ts';
import { wait } from './kinds/wait.ts';
import { when } from './kinds/when.ts';
import { workOut } from './kinds/workOut.ts';
import { write } from './kinds/write.ts';

/** Every kind of step there is. A new kind adds its file and one line here. */
export const stepKinds = {
  take,
  read,
  hear,
  'look up': lookUp,
  gist,
  judge,
  when,
  'for each': forEach,
  meanwhile,
  aim,
  outline,
  notes,
  write,
  'lay out': layOut,
  title,
  illustrate,
  chart,
  videos,
  link,
  vary,
  translate,
  put,
  answer,
  'work out': workOut,
  fetch: fetchStep,
  check,
  hold,
  publish,
  keep,
  tell,
  use,
  wait,
} as const;

export type StepKinds = typeof stepKinds;
export type StepKindName = keyof StepKinds;
/** The document of a step of one kind, or of any. */
export type StepOf<Kind extends StepKindName> = ReturnType<StepKinds[Kind]['fresh']>;
export type Step = { [Kind in StepKindName]: StepOf<Kind> }[StepKindName];

/** A step of any kind, told apart by its `kind`. */
export const AnyStep = z.discriminatedUnion(
  'kind',
  Object.values(stepKinds).map((kind) => kind.schema) as never,
) as unknown as z.ZodType<Step>;
stepsAre(AnyStep);
