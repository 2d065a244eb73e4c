import type { IntakeRow, SheetPreview, SheetSettings } from '@grivo/contract';
import { CELL_TYPES } from '@grivo/core';
import { ChoiceEditor, Mark, TextEditor, Tick, Word } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { leftOutWords } from './LookWords.tsx';

/** The rows of a sheet under its columns; what is wrong is ringed at its cell, with the reason and the mend beside the row. */
export function SheetGrid({
  preview,
  settings,
  picked,
  put,
  onToggle,
}: {
  preview: SheetPreview;
  settings: SheetSettings;
  picked: ReadonlySet<string>;
  put: (next: Partial<SheetSettings>) => void;
  onToggle: (item: string) => void;
}) {
  const { columns, header } = settings;
  const change = (at: number, next: Partial<SheetSettings['columns'][number]>) =>
    put({ columns: columns.map((column, i) => (i === at ? { ...column, ...next } : column)) });
  return (
    <table className="sheet-grid w-full text-small">
      <thead>
        <tr className="align-bottom">
          <th aria-label="Ticked" />
          <th aria-label="Row" />
          {columns.map((column, i) => (
            <ColumnHead key={column.header} column={column} settings={settings} onChange={(next) => change(i, next)} />
          ))}
          <th aria-label="What is wrong" />
        </tr>
      </thead>
      <tbody>
        {preview.shown.map((row, i) => (
          <Row
            key={row.n}
            row={row}
            folded={i === 0 ? 0 : row.n - preview.shown[i - 1]!.n - 1}
            columns={columns}
            header={header}
            picked={picked}
            onToggle={onToggle}
          />
        ))}
      </tbody>
    </table>
  );
}

type Column = SheetSettings['columns'][number];

const TYPES = CELL_TYPES.map((type) => ({ value: type, says: type, does: '' }));

/** A column: what field it becomes, its name in the sheet, and its type. */
function ColumnHead({
  column: { header, field, type },
  settings: { title, identity },
  onChange,
}: {
  column: Column;
  settings: SheetSettings;
  onChange: (next: Partial<Column>) => void;
}) {
  return (
    <th scope="col" className={type === 'number' ? 'text-right' : 'text-left'}>
      <Word
        label={`Field of ${header}`}
        editor={(close) => (
          <>
            <TextEditor
              label={`The field ${header} becomes`}
              value={field ?? ''}
              hint="A word as price; empty leaves the column out."
              onChange={(text) => {
                const name = text.trim();
                if (name === '') onChange({ field: null });
                else if (/^[a-z][A-Za-z0-9]{0,39}$/.test(name)) onChange({ field: name });
              }}
              onDone={close}
            />
            <div className="pt-3">
              <ChoiceEditor
                value={type}
                options={TYPES}
                onChoose={(next) => onChange({ type: next as Column['type'] })}
              />
            </div>
          </>
        )}
      >
        {header === title ? 'the title' : identity.includes(header) ? 'tells apart' : (field ?? 'left out')}
      </Word>
      <span className="block truncate pt-1 font-semibold">{header}</span>
      <span className="block font-normal text-ink-3">{type}</span>
    </th>
  );
}

function Row({
  row,
  folded,
  columns,
  header,
  picked,
  onToggle,
}: {
  row: IntakeRow;
  folded: number;
  columns: SheetSettings['columns'];
  header: number | null;
  picked: ReadonlySet<string>;
  onToggle: (item: string) => void;
}) {
  const above = header !== null && row.n <= header;
  const { item } = row;
  const open = item !== null && item.leftOut === null && !item.taken;
  if (header === row.n) return null;
  return (
    <>
      {folded > 1 ? (
        <tr className="text-ink-3">
          <td />
          <td className="fig">⋮</td>
          <td colSpan={columns.length + 1}>{count(folded)} rows folded, all can be used</td>
        </tr>
      ) : null}
      <tr className={item && picked.has(item.id) ? 'picked' : above ? 'text-ink-3' : ''}>
        <td>
          {open ? (
            <Tick label={`Row ${row.n}`} state={picked.has(item.id)} onChange={() => onToggle(item.id)} />
          ) : item?.taken ? (
            <Mark state="done" label="taken" />
          ) : item?.leftOut ? (
            <Mark state="aside" label="left out" />
          ) : null}
        </td>
        <td className="fig text-ink-3">{row.n}</td>
        {above ? (
          <td colSpan={columns.length}>
            <s>{row.cells.filter((cell) => cell !== '').join(', ')}</s> above the header, not read
          </td>
        ) : (
          columns.map((column, i) => (
            <Cell
              key={column.header}
              column={column}
              text={row.cells[i] ?? ''}
              wrong={row.faults.some((fault) => fault.header === column.header)}
            />
          ))
        )}
        <Beside row={row} columns={columns} />
      </tr>
    </>
  );
}

function Cell({ column: { type, field }, text, wrong }: { column: Column; text: string; wrong: boolean }) {
  const figure = type === 'number' || type === 'day';
  return (
    <td
      className={`max-w-[150px] truncate ${figure ? 'fig' : ''} ${type === 'number' ? 'text-right' : ''} ${field === null ? 'text-ink-3' : ''}`}
      title={text}
    >
      {wrong ? <span className="ringed">{text || '   '}</span> : text}
    </td>
  );
}

/** What is wrong with a row, at its cells first, and why it is left out. */
function Beside({ row: { faults, item }, columns }: { row: IntakeRow; columns: readonly Column[] }) {
  const ofCell = (fault: (typeof faults)[number]) => columns.some((column) => column.header === fault.header);
  const ordered = [...faults.filter(ofCell), ...faults.filter((fault) => !ofCell(fault))];
  return (
    <td className={`beside ${faults.length > 0 ? 'said' : ''}`}>
      {ordered.map((fault) => (
        <span key={`${fault.header}${fault.problem}`} className="block border-l-2 border-red pl-2">
          <b className="font-semibold text-red first-letter:uppercase">{fault.problem}</b>{' '}
          <span className="text-ink-2">{fault.mend}</span>
        </span>
      ))}
      {faults.length === 0 && item?.leftOut && item.leftOut !== 'before the start' ? (
        <span className="text-ink-3">{leftOutWords(item.leftOut, item.leftDetail)}</span>
      ) : null}
    </td>
  );
}
