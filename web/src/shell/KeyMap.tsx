import { Dialog } from 'radix-ui';
import { Key } from '../design/index.ts';
import { useShell } from './keys.ts';
import { VIEWS } from './views.ts';

const ELSEWHERE: readonly [string, readonly string[]][] = [
  ['Find or do', ['/']],
  ['These keys', ['?']],
  ['Settings', ['G', 'S']],
  ['Next, previous in a list', ['J', 'K']],
  ['Tick', ['Space']],
  ['Open', ['Enter']],
  ['Take what is ticked', ['T']],
  ['Run the trial', ['R']],
  ['One step on', ['N']],
  ['Save the procedure', ['S']],
  ['Take back', ['Z']],
  ['Do it again', ['⇧', 'Z']],
  ['At a line: everything it can do', ['Space']],
  ['Add a step below', ['A']],
  ['Move the line', ['Alt', '↑', '↓']],
  ['Into a block, out of it', ['Alt', '→', '←']],
  ['Pick a brief', ['X']],
  ['Step of a brief', ['H', 'L']],
  ['Slot to the left, to the right', ['←', '→']],
  ['Close', ['Esc']],
];

/** All keys on one page. */
export function KeyMap() {
  const { keys, showKeys } = useShell();
  return (
    <Dialog.Root open={keys} onOpenChange={showKeys}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-paper/70" />
        <Dialog.Content
          className="pop fixed left-1/2 top-24 z-50 !max-w-[560px] w-[560px] -translate-x-1/2"
          aria-describedby={undefined}
        >
          <Dialog.Title className="border-b border-ink pb-1 font-semibold">Keys</Dialog.Title>
          <ul className="columns-2 gap-8 pt-2">
            {VIEWS.map(({ name, key }) => (
              <Line key={name} says={`To ${name}`} keys={['G', key.toUpperCase()]} />
            ))}
            {ELSEWHERE.map(([says, pressed]) => (
              <Line key={says} says={says} keys={pressed} />
            ))}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Line({ says, keys }: { says: string; keys: readonly string[] }) {
  return (
    <li className="flex h-6 items-center justify-between break-inside-avoid border-b border-rule-soft">
      {says}
      <span className="flex gap-1">
        {keys.map((key) => (
          <Key key={key}>{key}</Key>
        ))}
      </span>
    </li>
  );
}
