import type { Line, Place } from '@grivo/core';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { Key, useDrag } from '../design/index.ts';
import type { LineCommand } from './lineCommands.ts';
import type { LineActs } from './ProcedureLine.tsx';

/** Keys by which a menu is walked through. */
const WALKS: ReadonlySet<string> = new Set(['Enter', ' ', 'ArrowUp', 'ArrowDown', 'Home', 'End', 'Escape', 'Tab']);

interface NumberProps {
  line: Line;
  number: number | null;
  commands: () => LineCommand[];
  current: boolean;
  picked: boolean;
  movable: boolean;
  acts: LineActs;
}

/** The number of a line: dragged by, and told what to do with it. */
export function LineNumber({ line, number, commands, current, picked, movable, acts }: NumberProps) {
  const [menu, setMenu] = useState(false);
  const drag = useDrag(line.key, movable);
  return (
    <DropdownMenu.Root open={menu} onOpenChange={setMenu} modal={false}>
      <span className="relative">
        <button
          {...drag}
          type="button"
          data-line={line.key}
          tabIndex={current ? 0 : -1}
          aria-label={line.step ? `Line ${number}, ${line.step.kind}` : `Empty, ${lineSays(line.place)}`}
          aria-haspopup="menu"
          aria-pressed={picked || undefined}
          className={`fig brackets touch-none leading-6 text-ink-3 ${movable ? 'cursor-grab active:cursor-grabbing' : ''}`}
          onKeyDown={acts.press}
          onFocus={acts.focus}
          onClick={(event) => acts.click(event) && setMenu(true)}
        >
          {number ?? '·'}
        </button>
        <DropdownMenu.Trigger asChild>
          <span aria-hidden className="pointer-events-none absolute bottom-0 left-0 h-1 w-4" tabIndex={-1} />
        </DropdownMenu.Trigger>
      </span>
      <Commands open={menu} commands={commands} onCommand={acts.command} close={() => setMenu(false)} />
    </DropdownMenu.Root>
  );
}

function Commands({
  open,
  commands,
  onCommand,
  close,
}: {
  open: boolean;
  commands: () => LineCommand[];
  onCommand: (command: LineCommand) => void;
  close: () => void;
}) {
  return (
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
          close();
          onCommand(command);
        }}
      >
        {(open ? commands() : []).map((command) => (
          <DropdownMenu.Item
            key={command.says}
            disabled={!command.can}
            className="choice !flex cursor-pointer justify-between outline-none data-[disabled]:cursor-default data-[disabled]:text-ink-3"
            onSelect={() => onCommand(command)}
          >
            {command.says} <Key>{command.key}</Key>
          </DropdownMenu.Item>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

function lineSays({ under }: Place): string {
  return under === 'otherwise' ? 'otherwise' : 'no step yet';
}
