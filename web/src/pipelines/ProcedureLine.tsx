import type { PipelineWhole } from '@grivo/contract';
import type { Line, SeenField, Step } from '@grivo/core';
import { type KeyboardEvent, type MouseEvent, type ReactNode, useState } from 'react';
import { Button } from '../design/index.ts';
import { LineNumber } from './LineNumber.tsx';
import type { LineCommand } from './lineCommands.ts';
import { Examples, OwnInstruction, StepSentence } from './StepSentence.tsx';
import type { Choices } from './StepWordEditor.tsx';
import { INDENT } from './useLineDrag.ts';

/** Where sentences begin: after the number. */
export const NUMBER_WIDTH = 28;

export interface LineActs {
  change: (field: string, value: unknown) => void;
  press: (event: KeyboardEvent) => void;
  focus: () => void;
  /** A press of the number; asks for the menu. */
  click: (event: MouseEvent) => boolean;
  command: (command: LineCommand) => void;
}

export interface LineProps {
  line: Line;
  number: number | null;
  /** What its step can speak of. */
  fields: readonly SeenField[];
  choices: Choices;
  problems: PipelineWhole['problems'];
  commands: () => LineCommand[];
  /** Whether the keys are at this line. */
  current: boolean;
  picked: boolean;
  dragged: boolean;
  /** Whether it can be dragged. */
  movable: boolean;
  acts: LineActs;
  /** What can be done with the trial at this line. */
  tools: ReactNode;
}

/** One line of a procedure: its number, by which it is moved and told what to do, and its sentence. */
export function ProcedureLine(props: LineProps) {
  const { line, picked, dragged, commands, acts } = props;
  const { step, depth, under } = line;
  return (
    <div
      className={`group relative ml-8 grid min-h-9 border-t border-rule-soft py-1.5 pr-4 ${picked ? 'bg-marker-wash' : ''} ${dragged ? 'opacity-40' : ''}`}
      style={{ gridTemplateColumns: `${NUMBER_WIDTH}px 1fr` }}
    >
      <LineNumber {...props} />
      <div className="relative" style={{ paddingLeft: depth * INDENT }}>
        {Array.from({ length: depth }, (_, i) => (
          <span
            key={i}
            aria-hidden
            className="absolute -top-1.5 -bottom-1.5 border-l border-rule-strong"
            style={{ left: i * INDENT + 6 }}
          />
        ))}
        {under === 'otherwise' ? <span className="block text-small text-ink-3">otherwise</span> : null}
        {step ? (
          <Told {...props} step={step} />
        ) : (
          <span className="leading-6 text-ink-3">
            {line.place.under === 'otherwise' ? 'nothing; ' : 'nothing yet; '}
            <button
              type="button"
              className="act quiet brackets"
              tabIndex={-1}
              onClick={() => acts.command(commands()[0]!)}
            >
              add a step here
            </button>
          </span>
        )}
      </div>
      {step ? <Offered {...props} step={step} /> : null}
    </div>
  );
}

/** Its sentence, and what the checks say of it. */
function Told({ step, choices, fields, problems, acts }: LineProps & { step: Step }) {
  return (
    <>
      <span className={step.off ? 'text-ink-3 [&_.word]:text-ink-3 [&_span]:line-through' : ''}>
        <StepSentence step={step} choices={choices} fields={fields} problems={problems} onChange={acts.change} />
      </span>
      {step.off ? <span className="text-small text-ink-3"> switched off</span> : null}
      {problems
        .filter((found) => found.field === undefined || found.grade === 'warning')
        .map((found) => (
          <p key={found.sentence} className={`text-small ${found.grade === 'error' ? 'text-red' : 'text-ink-2'}`}>
            {found.sentence} {found.mend}
          </p>
        ))}
    </>
  );
}

/** What is offered while the line is looked at. */
function Offered({ step, fields, commands, acts, tools }: LineProps & { step: Step }) {
  // The first words of an instruction are written where there was none: its editor stays until it is closed.
  const [writing, setWriting] = useState(false);
  const [exemplifying, setExemplifying] = useState(false);
  return (
    <span
      data-screen=""
      className="absolute right-4 -bottom-2 z-10 flex items-start gap-3 bg-paper pl-2 text-small leading-4 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 has-[[data-state=open]]:opacity-100"
    >
      <Button look="quiet" tabIndex={-1} onClick={() => acts.command(commands()[0]!)}>
        add a step
      </Button>
      {'instruction' in step && step.kind !== 'answer' && (writing || step.instruction.trim() === '') ? (
        <OwnInstruction step={step} own={step.instruction} fields={fields} onChange={acts.change} onOpen={setWriting} />
      ) : null}
      {'examples' in step && (exemplifying || step.examples.length === 0) ? (
        <Examples step={step} examples={step.examples} onChange={acts.change} onOpen={setExemplifying} />
      ) : null}
      {tools}
    </span>
  );
}
