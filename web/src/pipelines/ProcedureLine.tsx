import type { PipelineWhole } from '@grivo/contract';
import type { Line, Place, SeenField } from '@grivo/core';
import { DropdownMenu } from 'radix-ui';
import { type KeyboardEvent, type MouseEvent, type PointerEvent, type ReactNode, useState } from 'react';
import { Button, Key } from '../design/index.ts';
import type { LineCommand } from './lineCommands.ts';
import { Examples, OwnInstruction, StepSentence } from './StepSentence.tsx';
import type { Choices } from './StepWordEditor.tsx';
import { INDENT } from './useLineDrag.ts';

/** Where sentences begin: after the number. */
export const NUMBER_WIDTH = 28;

/** Keys by which a menu is walked through. */
const WALKS: ReadonlySet<string> = new Set(['Enter', ' ', 'ArrowUp', 'ArrowDown', 'Home', 'End', 'Escape', 'Tab']);

export interface LineActs {
  change: (field: string, value: unknown) => void;
  press: (event: KeyboardEvent) => void;
  focus: () => void;
  /** A press of the number that was no drag; asks for the menu. */
  click: (event: MouseEvent) => boolean;
  command: (command: LineCommand) => void;
  drag: {
    onPointerDown: (event: PointerEvent<HTMLElement>) => void;
    onPointerMove: (event: PointerEvent<HTMLElement>) => void;
    onPointerUp: () => void;
    onPointerCancel: () => void;
  } | null;
}

/** One line of a procedure: its number, by which it is moved and told what to do, and its sentence. */
export function ProcedureLine({
  line,
  number,
  fields,
  choices,
  problems,
  commands,
  current,
  picked,
  dragged,
  acts,
  tools,
}: {
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
  acts: LineActs;
  /** What can be done with the trial at this line. */
  tools: ReactNode;
}) {
  const { step, depth, under, key } = line;
  const [menu, setMenu] = useState(false);
  // The first words of an instruction are written where there was none: its editor stays until it is closed.
  const [writing, setWriting] = useState(false);
  const [exemplifying, setExemplifying] = useState(false);
  return (
    <div
      className={`group relative ml-8 grid min-h-9 border-t border-rule-soft py-1.5 pr-4 ${picked ? 'bg-marker-wash' : ''} ${dragged ? 'opacity-40' : ''}`}
      style={{ gridTemplateColumns: `${NUMBER_WIDTH}px 1fr` }}
    >
      <DropdownMenu.Root open={menu} onOpenChange={setMenu} modal={false}>
        <span className="relative">
          <button
            type="button"
            data-line={key}
            tabIndex={current ? 0 : -1}
            aria-label={step ? `Line ${number}, ${step.kind}` : `Empty, ${lineSays(line.place)}`}
            aria-haspopup="menu"
            aria-pressed={picked || undefined}
            className={`fig brackets touch-none leading-6 text-ink-3 ${acts.drag ? 'cursor-grab active:cursor-grabbing' : ''}`}
            onKeyDown={acts.press}
            onFocus={acts.focus}
            onClick={(event) => acts.click(event) && setMenu(true)}
            {...acts.drag}
          >
            {number ?? '·'}
          </button>
          <DropdownMenu.Trigger asChild>
            <span aria-hidden className="pointer-events-none absolute bottom-0 left-0 h-1 w-4" tabIndex={-1} />
          </DropdownMenu.Trigger>
        </span>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            className="pop !min-w-[300px] !p-1"
            sideOffset={8}
            align="start"
            alignOffset={-16}
            collisionPadding={12}
            onCloseAutoFocus={(event) => event.preventDefault()}
            onKeyDown={(event) => {
              // The keys shown do what they do without the menu; arrows and Enter go through it.
              if (event.ctrlKey || event.metaKey || WALKS.has(event.key)) return;
              const command = commands().find((one) => one.can && one.pressed(event));
              if (!command) return;
              event.preventDefault();
              setMenu(false);
              acts.command(command);
            }}
          >
            {(menu ? commands() : []).map((command) => (
              <DropdownMenu.Item
                key={command.says}
                disabled={!command.can}
                className="choice !flex cursor-pointer justify-between outline-none data-[disabled]:cursor-default data-[disabled]:text-ink-3"
                onSelect={() => acts.command(command)}
              >
                {command.says} <Key>{command.key}</Key>
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
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
      {step ? (
        <span
          data-screen=""
          className="absolute right-4 -bottom-2 z-10 flex items-start gap-3 bg-paper pl-2 text-small leading-4 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 has-[[data-state=open]]:opacity-100"
        >
          <Button look="quiet" tabIndex={-1} onClick={() => acts.command(commands()[0]!)}>
            add a step
          </Button>
          {'instruction' in step && step.kind !== 'answer' && (writing || step.instruction.trim() === '') ? (
            <OwnInstruction
              step={step}
              own={step.instruction}
              fields={fields}
              onChange={acts.change}
              onOpen={setWriting}
            />
          ) : null}
          {'examples' in step && (exemplifying || step.examples.length === 0) ? (
            <Examples step={step} examples={step.examples} onChange={acts.change} onOpen={setExemplifying} />
          ) : null}
          {tools}
        </span>
      ) : null}
    </div>
  );
}

function lineSays({ under }: Place): string {
  return under === 'otherwise' ? 'otherwise' : 'no step yet';
}
