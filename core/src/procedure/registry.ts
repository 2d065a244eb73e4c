import { check } from './kinds/check.ts';
import { illustrate } from './kinds/illustrate.ts';
import { link } from './kinds/link.ts';
import { lookUp } from './kinds/lookUp.ts';
import { outline } from './kinds/outline.ts';
import { publish } from './kinds/publish.ts';
import { take } from './kinds/take.ts';
import { title } from './kinds/title.ts';
import { write } from './kinds/write.ts';

/** Every kind of step there is. A new kind adds its file and one line here. */
export const stepKinds = {
  take,
  'look up': lookUp,
  outline,
  write,
  title,
  illustrate,
  link,
  check,
  publish,
} as const;

export type StepKinds = typeof stepKinds;
export type StepKindName = keyof StepKinds;
/** The document of a step of one kind, or of any. */
export type StepOf<Kind extends StepKindName> = ReturnType<StepKinds[Kind]['fresh']>;
export type Step = { [Kind in StepKindName]: StepOf<Kind> }[StepKindName];
