import type { PipelineWhole } from '@grivo/contract';
import {
  type BlockKind,
  type CheckContext,
  changeKind,
  fieldsThroughout,
  insertStep,
  type Line,
  linesOf,
  moveStep,
  nextStepId,
  type Place,
  type ProcedureDocument,
  type Step,
  type StepKindName,
  stepKinds,
  wrapSteps,
} from '@grivo/core';
import { type KeyboardEvent, type ReactNode, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { Button } from '../design/index.ts';
import { isGoing } from '../shell/keys.ts';
import { useDraft } from './draft.ts';
import { type LineCommand, type Listing, lineCommands, pickedSteps } from './lineCommands.ts';
import { NUMBER_WIDTH, ProcedureLine } from './ProcedureLine.tsx';
import { StepList } from './StepList.tsx';
import type { Choices } from './StepWordEditor.tsx';
import { INDENT, useLineDrag } from './useLineDrag.ts';

/** Margin and number before the outermost sentences. */
const SENTENCES_LEFT = 32 + NUMBER_WIDTH;

/**
 * The lines of a procedure, moved, put in and taken out by key and by drag. Keys act at the line whose number has the
 * focus: up and down go from line to line, right goes into its words.
 */
export function ProcedureLines({
  document,
  choices,
  context,
  problems,
  tools,
  beside,
}: {
  document: ProcedureDocument;
  choices: Choices;
  /** What the checks know; null until it is read. */
  context: CheckContext | null;
  problems: PipelineWhole['problems'];
  tools: (step: string, first: boolean) => ReactNode;
  beside: (step: string, first: boolean) => ReactNode;
}) {
  const { change, edit } = useDraft();
  const lines = useMemo(() => linesOf(document), [document]);
  // Looked for once a key pressed in an instruction is drawn.
  const settled = useDeferredValue(document);
  const seen = useMemo(() => fieldsThroughout(settled, context), [settled, context]);
  const list = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<string | null>(null);
  const [from, setFrom] = useState<string | null>(null);
  const [listing, setListing] = useState<{ for: Listing; line: Line; picked: string[] } | null>(null);
  const [wanted, setWanted] = useState<string | null>(null);
  const current = lines.some(({ key }) => key === at) ? at! : lines[0]!.key;
  const picked = from === null ? [] : pickedSteps(lines, from, current);
  const numberOf = (key: string) => list.current?.querySelector<HTMLElement>(`[data-line="${key}"]`) ?? null;
  // A line that was moved or just made is drawn first, then has the focus again.
  useEffect(() => {
    if (wanted === null) return;
    list.current?.querySelector<HTMLElement>(`[data-line="${wanted}"]`)?.focus();
    setWanted(null);
  }, [wanted]);
  const drop = (key: string, place: Place) => {
    if (edit((now) => moveStep(now, key, place))) setWanted(key);
  };
  const drag = useLineDrag(document, lines, list, SENTENCES_LEFT, drop);

  const commandsAt = (line: Line) => {
    const own = pickedSteps(lines, from, current);
    return lineCommands(document, line, own.includes(line.key) ? own : line.step ? [line.key] : []);
  };
  const act = (line: Line, { can, does }: LineCommand) => {
    if (!can) return;
    if ('list' in does) {
      const own = pickedSteps(lines, from, current);
      setListing({ for: does.list, line, picked: own.includes(line.key) ? own : [line.key] });
      return;
    }
    const here = lines.indexOf(line);
    const after = {
      stay: line.key,
      leave: lines[here + 1]?.key ?? lines[here - 1]?.key ?? null,
      made: nextStepId(document),
    };
    if (!edit(does.edit)) return;
    setFrom(null);
    setWanted(after[does.next]);
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
      return insertStep(now, place, fresh(kind, id, choices));
    });
    setListing(null);
    setFrom(null);
    setWanted(made);
  };
  const go = (line: Line | undefined, keepPicked: boolean) => {
    if (!line) return;
    setFrom(keepPicked ? (from ?? current) : null);
    setAt(line.key);
    numberOf(line.key)?.focus();
  };
  const press = (line: Line) => (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || isGoing()) return;
    const here = lines.indexOf(line);
    const { key, altKey, shiftKey } = event;
    const command = shiftKey && key !== '+' ? undefined : commandsAt(line).find((one) => one.pressed(event));
    if (command) act(line, command);
    else if (altKey) return;
    else if (key === 'ArrowDown') go(lines[here + 1], shiftKey);
    else if (key === 'ArrowUp') go(lines[here - 1], shiftKey);
    else if (key === 'Home') go(lines[0], shiftKey);
    else if (key === 'End') go(lines.at(-1), shiftKey);
    else if (key === 'ArrowRight') list.current?.querySelector<HTMLElement>(`[data-row="${line.key}"] .word`)?.focus();
    else if (key === 'Escape' && from !== null) setFrom(null);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  let number = 0;
  return (
    <div ref={list} data-lines="" className="relative col-span-2">
      {lines.map((line) => {
        const { key, step } = line;
        if (step) number++;
        const first = step?.kind === 'take';
        return (
          <div key={key} data-row={key} className="relative grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
            <ProcedureLine
              line={line}
              number={step ? number : null}
              fields={step ? seen(step.id) : []}
              choices={choices}
              problems={step ? problems.filter((found) => found.step === step.id) : []}
              commands={() => commandsAt(line)}
              current={key === current}
              picked={picked.length > 1 && picked.includes(key)}
              dragged={drag.dragged?.key === key}
              acts={{
                change: (field, value) => change(key, field, value),
                press: press(line),
                focus: () => setAt(key),
                click: ({ shiftKey }) => {
                  if (drag.wasDrag()) return false;
                  if (shiftKey) go(line, true);
                  else if (!picked.includes(key)) setFrom(null);
                  return !shiftKey;
                },
                command: (command) => act(line, command),
                drag: step && !first ? drag.handlers(key) : null,
              }}
              tools={step ? tools(step.id, first) : null}
            />
            <div data-screen="" className="mr-8 border-t border-rule-soft pl-5">
              {step ? beside(step.id, first) : null}
            </div>
          </div>
        );
      })}
      <p data-screen="" className="ml-8 border-t border-rule-soft py-1.5 pl-7 leading-6">
        <Button
          look="quiet"
          onClick={() => {
            const last = lines.findLast(({ depth }) => depth === 0)!;
            setListing({ for: 'add', line: last, picked: [last.key] });
          }}
        >
          Add a step
        </Button>
      </p>
      {drag.dragged?.landing ? (
        <span
          aria-hidden
          data-landing=""
          className="pointer-events-none absolute z-20 border-t-2 border-ink before:absolute before:-top-[5px] before:-left-[5px] before:size-2 before:bg-marker before:outline before:outline-1 before:outline-ink"
          style={{
            top: drag.dragged.landing.top - 1,
            left: SENTENCES_LEFT + drag.dragged.landing.depth * INDENT,
            width: `calc(55.9375% - ${SENTENCES_LEFT + 16 + drag.dragged.landing.depth * INDENT}px)`,
          }}
        />
      ) : null}
      {listing ? (
        <StepList
          listing={listing.for}
          step={listing.line.step}
          anchor={numberOf(listing.line.key) ?? window.document.body}
          onChoose={choose}
          close={() => {
            setListing(null);
            setWanted(listing.line.key);
          }}
        />
      ) : null}
    </div>
  );
}

/** A new step, with what there is only one sensible choice for already chosen. */
function fresh(kind: StepKindName, id: string, { blogs, routines }: Choices): Step {
  const step = stepKinds[kind].fresh(id) as Step;
  if (step.kind === 'publish') return { ...step, blog: blogs.length === 1 ? blogs[0]!.id : '' };
  if (step.kind === 'use') return { ...step, routine: routines[0]?.id ?? '' };
  return step;
}
