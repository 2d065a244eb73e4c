import {
  type BlockKind,
  changeKind,
  insertStep,
  type Line,
  nextStepId,
  type ProcedureDocument,
  type Step,
  type StepKindName,
  stepKinds,
  wrapSteps,
} from '@grivo/core';
import { type KeyboardEvent, useState } from 'react';
import { isGoing } from '../shell/keys.ts';
import { useDraft } from './draft.ts';
import { type LineCommand, type Listing, lineCommands } from './lineCommands.ts';
import type { Choices } from './StepWordEditor.tsx';
import type { LineFocus } from './useLineFocus.ts';

/** What the list of steps is open for, and at which line. */
export interface OpenListing {
  for: Listing;
  line: Line;
  picked: string[];
}

/** What is done at a line: by its commands, by the list of steps, by keys. */
export function useLineActs(
  document: ProcedureDocument,
  lines: readonly Line[],
  focus: LineFocus,
  { blogs, routines }: Choices,
) {
  const { edit } = useDraft();
  const [listing, setListing] = useState<OpenListing | null>(null);
  const commandsAt = (line: Line) => lineCommands(document, line, focus.meant(line));
  const act = (line: Line, { can, does }: LineCommand) => {
    if (!can) return;
    if ('list' in does) {
      const meant = focus.meant(line);
      setListing({ for: does.list, line, picked: meant.length > 0 ? meant : [line.key] });
      return;
    }
    const here = lines.indexOf(line);
    const after = {
      stay: line.key,
      leave: lines[here + 1]?.key ?? lines[here - 1]?.key ?? null,
      made: nextStepId(document),
    };
    if (!edit(does.edit)) return;
    focus.leavePicked();
    focus.setWanted(after[does.next]);
  };
  const choose = (kind: StepKindName) => {
    if (!listing) return;
    const { line, picked } = listing;
    let made = line.key;
    edit((now) => {
      if (listing.for === 'change') return changeKind(now, line.key, kind);
      const id = nextStepId(now);
      made = id;
      if (listing.for === 'wrap') return wrapSteps(now, picked, kind as BlockKind);
      const place = line.step ? { ...line.place, at: line.place.at + 1 } : line.place;
      return insertStep(now, place, fresh(kind, id, { blogs, routines }));
    });
    setListing(null);
    focus.leavePicked();
    focus.setWanted(made);
  };
  return { commandsAt, act, choose, listing, setListing };
}

/** A new step, with what there is only one sensible choice for already chosen. */
function fresh(kind: StepKindName, id: string, { blogs, routines }: Pick<Choices, 'blogs' | 'routines'>): Step {
  const step = stepKinds[kind].fresh(id) as Step;
  if (step.kind === 'publish') return { ...step, blog: blogs.length === 1 ? blogs[0]!.id : '' };
  if (step.kind === 'use') return { ...step, routine: routines[0]?.id ?? '' };
  return step;
}

/** Keys at a line's number: up and down go from line to line, right goes into its words, the others are its commands. */
export function pressAt(
  line: Line,
  lines: readonly Line[],
  focus: LineFocus,
  { commandsAt, act }: Pick<ReturnType<typeof useLineActs>, 'commandsAt' | 'act'>,
) {
  return (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || isGoing()) return;
    const here = lines.indexOf(line);
    const { key, altKey, shiftKey } = event;
    const command = shiftKey && key !== '+' ? undefined : commandsAt(line).find((one) => one.pressed(event));
    const ways: Record<string, Line | undefined> = {
      ArrowDown: lines[here + 1],
      ArrowUp: lines[here - 1],
      Home: lines[0],
      End: lines.at(-1),
    };
    if (command) act(line, command);
    else if (altKey) return;
    else if (Object.hasOwn(ways, key)) focus.go(ways[key], shiftKey);
    else if (key === 'ArrowRight') focus.intoWords(line.key);
    else if (key === 'Escape' && focus.picking) focus.leavePicked();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
}
