import type { BlockType } from '@grivo/core';
import { redo, undo } from 'prosemirror-history';
import { type Command, NodeSelection } from 'prosemirror-state';
import { addColumnAfter, addRowAfter, deleteColumn, deleteRow, isInTable } from 'prosemirror-tables';
import type { EditorView } from 'prosemirror-view';
import { DropdownMenu } from 'radix-ui';
import { ChoiceWord } from '../design/index.ts';
import { code, emphasis, insertBlock, moveBlock, newTable, newWhole, removeBlock, strong } from './commands.ts';
import type { nodeOf } from './document.ts';
import { PutPicture } from './PutPicture.tsx';
import { blockTypeOf, schema, type WholeBlock } from './schema.ts';
import { TURNS, type Turn, turnAt, turnInto } from './turns.ts';

const SAYS: Record<Turn, string> = {
  paragraph: 'a paragraph',
  'heading 2': 'a heading',
  'heading 3': 'a smaller heading',
  'heading 4': 'the smallest heading',
  list: 'a list',
  'numbered list': 'a numbered list',
  'key points': 'key points',
  quote: 'a quotation',
  'question and answer': 'a question and its answer',
  closing: 'the closing words',
  'standing text': 'a standing text',
  disclosure: 'a disclosure',
};
const DOES: Partial<Record<Turn, string>> = {
  'key points': 'what matters, above the text',
  quote: 'with who said it',
  closing: 'what follows from the text',
  'standing text': 'the same in many articles',
  disclosure: 'what readers must be told',
};
const OPTIONS = TURNS.map((value) => ({ value, says: SAYS[value], does: DOES[value] ?? '' }));

/** What can be put in, beside texts. */
const NEW: readonly { says: string; make: () => ReturnType<typeof nodeOf> }[] = [
  { says: 'Table', make: newTable },
  { says: 'Question and answer', make: () => schema.nodes.question_and_answer.createAndFill()! },
  { says: 'Quotation', make: () => schema.nodes.quote.createAndFill()! },
  { says: 'Key points', make: () => schema.nodes.key_points.createAndFill()! },
  whole('Button', {
    type: 'call to action',
    id: '',
    content: [],
    button: 'Have a look',
    link: { to: 'address', address: 'https://' },
  }),
  whole('Video', { type: 'video', id: '', address: 'https://', title: 'A video' }),
  whole('Chart', {
    type: 'chart',
    id: '',
    form: 'bar',
    labels: ['First', 'Second'],
    series: [{ name: 'Figure', values: [1, 2] }],
    alternative: '',
  }),
  whole('List of contents', { type: 'contents', id: '' }),
  whole('Fold: read on', { type: 'fold', id: '', words: 'Read on' }),
  whole('Place for a picture', { type: 'placeholder', id: '', wants: 'picture', says: '' }),
];
const MARKUP = whole('Markup of your own', { type: "owner's markup", id: '', markup: '<p></p>' });

function whole(says: string, block: WholeBlock): (typeof NEW)[number] {
  return {
    says,
    make: () => newWhole(block),
  };
}

/** What can be done where the place to type is. It is drawn anew with every change of the editor. */
export function Toolbar({
  view,
  mayMarkup,
  onLink,
  onFind,
  onAnew,
}: {
  view: EditorView;
  /** Whether this person may put in markup of their own. */
  mayMarkup: boolean;
  onLink: () => void;
  onFind: () => void;
  /** Null for who may not spend money. */
  onAnew: (() => void) | null;
}) {
  const { state } = view;
  const does = (command: Command) => {
    // As it is now: what is drawn may be some letters behind.
    command(view.state, view.dispatch);
    view.focus();
  };
  const turn = turnAt(state.selection.$from);
  const table = isInTable(state);
  return (
    <div role="toolbar" aria-label="The text" className="proof-bar">
      <span>
        It is{' '}
        {turn ? (
          <ChoiceWord
            label="What it is"
            value={turn}
            options={OPTIONS}
            onClosed={() => view.focus()}
            onChoose={(value) => does(turnInto(value))}
          />
        ) : table ? (
          'a table'
        ) : (
          called(view)
        )}
      </span>
      <Press says="Bold" keys="Ctrl B" command={strong} view={view} does={does} on={marked(view, 'strong')}>
        <strong>B</strong>
      </Press>
      <Press says="Italic" keys="Ctrl I" command={emphasis} view={view} does={does} on={marked(view, 'emphasis')}>
        <em>I</em>
      </Press>
      <Press says="Code" keys="Ctrl E" command={code} view={view} does={does} on={marked(view, 'code')}>
        <code>C</code>
      </Press>
      <button type="button" className="act quiet brackets" title="Ctrl K" onClick={onLink}>
        Link…
      </button>
      {onAnew ? (
        <button type="button" className="act quiet brackets" title="Alt R" onClick={onAnew}>
          Write anew…
        </button>
      ) : null}
      <Insert does={does} mayMarkup={mayMarkup} onClosed={() => view.focus()} />
      <PutPicture does={does} onClosed={() => view.focus()} />
      <MoveTools view={view} does={does} />
      {table ? <TableTools view={view} does={does} /> : null}
      <span className="ml-auto flex gap-3">
        <button type="button" className="act quiet brackets" title="Ctrl F" onClick={onFind}>
          Find…
        </button>
        <Press says="Undo" keys="Ctrl Z" command={undo} view={view} does={does}>
          Undo
        </Press>
        <Press says="Redo" keys="Ctrl Y" command={redo} view={view} does={does}>
          Redo
        </Press>
      </span>
    </div>
  );
}

type Does = (command: Command) => void;

function MoveTools({ view, does }: { view: EditorView; does: Does }) {
  return (
    <>
      <Press says="Move it up" keys="Alt ↑" command={moveBlock(-1)} view={view} does={does}>
        Up
      </Press>
      <Press says="Move it down" keys="Alt ↓" command={moveBlock(1)} view={view} does={does}>
        Down
      </Press>
      <Press says="Take it out" command={removeBlock} view={view} does={does}>
        Out
      </Press>
    </>
  );
}

function TableTools({ view, does }: { view: EditorView; does: Does }) {
  return (
    <>
      {TABLE_TOOLS.map(({ says, shows, command }) => (
        <Press key={says} says={says} command={command} view={view} does={does}>
          {shows}
        </Press>
      ))}
    </>
  );
}

const TABLE_TOOLS = [
  { says: 'Add a row', shows: '+ row', command: addRowAfter },
  { says: 'Add a column', shows: '+ column', command: addColumnAfter },
  { says: 'Take the row out', shows: '− row', command: deleteRow },
  { says: 'Take the column out', shows: '− column', command: deleteColumn },
];

function Press({
  says,
  keys = '',
  command,
  view,
  does,
  on,
  children,
}: {
  says: string;
  keys?: string;
  command: Command;
  view: EditorView;
  does: Does;
  /** Whether it is so where the place to type is. */
  on?: boolean;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      className={`act quiet brackets min-w-6 text-center ${on ? 'hl hl-full' : ''}`}
      title={keys === '' ? says : `${says}: ${keys}`}
      aria-label={says}
      aria-pressed={on}
      disabled={!command(view.state)}
      // The place to type stays where it is.
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => does(command)}
    >
      {children}
    </button>
  );
}

/** What is picked, where it is no text. */
function called({ state: { selection } }: EditorView): string {
  const node = selection instanceof NodeSelection ? selection.node : selection.$from.node(1);
  const type = blockTypeOf(node);
  return CALLED[type] ?? type;
}

const CALLED: Partial<Record<BlockType, string>> = {
  table: 'a table',
  figure: 'a picture',
  video: 'a video',
  chart: 'a chart',
  'call to action': 'a button',
  fold: 'a fold',
  contents: 'the list of contents',
  placeholder: 'a place kept for something',
  "owner's markup": 'markup of your own',
};

function marked({ state }: EditorView, mark: 'strong' | 'emphasis' | 'code'): boolean {
  const { from, to, $from, empty } = state.selection;
  const type = schema.marks[mark];
  return empty
    ? type.isInSet(state.storedMarks ?? $from.marks()) !== undefined
    : state.doc.rangeHasMark(from, to, type);
}

/** Blocks that can be put behind the one at hand. */
function Insert({ does, mayMarkup, onClosed }: { does: Does; mayMarkup: boolean; onClosed: () => void }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <button type="button" className="act quiet brackets">
          Put in…
        </button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="pop !min-w-[220px] !p-1"
          sideOffset={6}
          align="start"
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            onClosed();
          }}
        >
          {(mayMarkup ? [...NEW, MARKUP] : NEW).map(({ says, make }) => (
            <DropdownMenu.Item
              key={says}
              className="choice !block cursor-pointer outline-none"
              onSelect={() => does(insertBlock(make()))}
            >
              {says}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
