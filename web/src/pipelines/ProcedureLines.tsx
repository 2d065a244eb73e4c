import type { PipelineWhole } from '@grivo/contract';
import { type CheckContext, fieldsThroughout, type Line, linesOf, moveStep, type ProcedureDocument } from '@grivo/core';
import { type ReactNode, useDeferredValue, useMemo, useRef } from 'react';
import { Button, DragGround } from '../design/index.ts';
import { useDraft } from './draft.ts';
import { NUMBER_WIDTH, ProcedureLine } from './ProcedureLine.tsx';
import { StepList } from './StepList.tsx';
import type { Choices } from './StepWordEditor.tsx';
import { pressAt, useLineActs } from './useLineActs.ts';
import { INDENT, type Landing, useLineDrag } from './useLineDrag.ts';
import { useLineFocus } from './useLineFocus.ts';

/** Margin and number before the outermost sentences. */
const SENTENCES_LEFT = 32 + NUMBER_WIDTH;

interface LinesProps {
  document: ProcedureDocument;
  choices: Choices;
  /** What the checks know; null until it is read. */
  context: CheckContext | null;
  problems: PipelineWhole['problems'];
  tools: (step: string, first: boolean) => ReactNode;
  beside: (step: string, first: boolean) => ReactNode;
}

/**
 * The lines of a procedure, moved, put in and taken out by key and by drag. Keys act at the line whose number has the
 * focus.
 */
export function ProcedureLines(props: LinesProps) {
  const { document, choices } = props;
  const { edit } = useDraft();
  const lines = useMemo(() => linesOf(document), [document]);
  const list = useRef<HTMLDivElement>(null);
  const focus = useLineFocus(lines, list);
  const acts = useLineActs(document, lines, focus, choices);
  const { dragged, ground } = useLineDrag(document, lines, list, SENTENCES_LEFT, (key, place) => {
    if (edit((now) => moveStep(now, key, place))) focus.setWanted(key);
  });
  const { listing, setListing } = acts;
  return (
    <div ref={list} data-lines="" className="relative col-span-2">
      <DragGround byKeys="Alt and an arrow key move it." {...ground}>
        <Rows {...props} lines={lines} focus={focus} acts={acts} dragged={dragged?.key ?? null} />
      </DragGround>
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
      {dragged?.landing ? <LandingMark landing={dragged.landing} /> : null}
      {listing ? (
        <StepList
          listing={listing.for}
          step={listing.line.step}
          anchor={focus.numberOf(listing.line.key) ?? window.document.body}
          onChoose={acts.choose}
          close={() => {
            setListing(null);
            focus.setWanted(listing.line.key);
          }}
        />
      ) : null}
    </div>
  );
}

function Rows({
  document,
  choices,
  context,
  problems,
  tools,
  beside,
  lines,
  focus,
  acts,
  dragged,
}: LinesProps & {
  lines: readonly Line[];
  focus: ReturnType<typeof useLineFocus>;
  acts: ReturnType<typeof useLineActs>;
  dragged: string | null;
}) {
  const { change } = useDraft();
  // Looked for once a key pressed in an instruction is drawn.
  const settled = useDeferredValue(document);
  const seen = useMemo(() => fieldsThroughout(settled, context), [settled, context]);
  const numbers = new Map(lines.filter(({ step }) => step).map(({ key }, i) => [key, i + 1]));
  const { picked } = focus;
  return lines.map((line) => {
    const { key, step } = line;
    const first = step?.kind === 'take';
    return (
      <div key={key} data-row={key} className="relative grid grid-cols-[minmax(0,716fr)_minmax(0,564fr)]">
        <ProcedureLine
          line={line}
          number={numbers.get(key) ?? null}
          fields={step ? seen(step.id) : []}
          choices={choices}
          problems={step ? problems.filter((found) => found.step === step.id) : []}
          commands={() => acts.commandsAt(line)}
          current={key === focus.current}
          picked={picked.length > 1 && picked.includes(key)}
          dragged={dragged === key}
          movable={step !== null && !first}
          acts={{
            change: (field, value) => change(key, field, value),
            press: pressAt(line, lines, focus, acts),
            focus: () => focus.setAt(key),
            click: ({ shiftKey }) => {
              if (shiftKey) focus.go(line, true);
              else if (!picked.includes(key)) focus.leavePicked();
              return !shiftKey;
            },
            command: (command) => acts.act(line, command),
          }}
          tools={step ? tools(step.id, first) : null}
        />
        <div data-screen="" className="mr-8 border-t border-rule-soft pl-5">
          {step ? beside(step.id, first) : null}
        </div>
      </div>
    );
  });
}

/** Where a dragged step would come to stand. */
function LandingMark({ landing: { top, depth } }: { landing: Landing }) {
  const left = SENTENCES_LEFT + depth * INDENT;
  return (
    <span
      aria-hidden
      data-landing=""
      className="pointer-events-none absolute z-20 border-t-2 border-ink before:absolute before:-top-[5px] before:-left-[5px] before:size-2 before:bg-marker before:outline before:outline-1 before:outline-ink"
      style={{ top: top - 1, left, width: `calc(55.9375% - ${left + 16}px)` }}
    />
  );
}
