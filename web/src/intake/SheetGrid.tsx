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
  const numeric = columns.map(({ type }) => type === 'number');
  return (
    <table className="sheet-grid w-full text-small">
      <thead>
        <tr className="align-bottom">
          <th aria-label="Ticked" />
          <th aria-label="Row" />
          {columns.map((column, i) => (
            <th key={column.header} scope="col" className={numeric[i] ? 'text-right' : 'text-left'}>
              <Word
                label={`Field of ${column.header}`}
                editor={(close) => (
                  <>
                    <TextEditor
                      label={`The field ${column.header} becomes`}
                      value={column.field ?? ''}
                      hint="A word as price; empty leaves the column out."
                      onChange={(text) => {
                        const name = text.trim();
                        if (name === '') change(i, { field: null });
                        else if (/^[a-z][A-Za-z0-9]{0,39}$/.test(name)) change(i, { field: name });
                      }}
                      onDone={close}
                    />
                    <div className="pt-3">
                      <ChoiceEditor
                        value={column.type}
                        options={CELL_TYPES.map((type) => ({ value: type, says: type, does: '' }))}
                        onChoose={(type) => change(i, { type: type as (typeof CELL_TYPES)[number] })}
                      />
                    </div>
                  </>
                )}
              >
                {column.header === settings.title
                  ? 'the title'
                  : settings.identity.includes(column.header)
                    ? 'tells apart'
                    : (column.field ?? 'left out')}
              </Word>
              <span className="block truncate pt-1 font-semibold">{column.header}</span>
              <span className="block font-normal text-ink-3">{column.type}</span>
            </th>
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
  const whole = row.faults.filter((fault) => !columns.some((column) => column.header === fault.header));
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
          columns.map((column, i) => {
            const wrong = row.faults.some((fault) => fault.header === column.header);
            const figure = column.type === 'number' || column.type === 'day';
            return (
              <td
                key={column.header}
                className={`max-w-[150px] truncate ${figure ? 'fig' : ''} ${column.type === 'number' ? 'text-right' : ''} ${column.field === null ? 'text-ink-3' : ''}`}
                title={row.cells[i] ?? ''}
              >
                {wrong ? <span className="ringed">{row.cells[i] || '   '}</span> : row.cells[i]}
              </td>
            );
          })
        )}
        <td className={`beside ${row.faults.length > 0 ? 'said' : ''}`}>
          {[...row.faults.filter((fault) => !whole.includes(fault)), ...whole].map((fault) => (
            <span key={`${fault.header}${fault.problem}`} className="block border-l-2 border-red pl-2">
              <b className="font-semibold text-red first-letter:uppercase">{fault.problem}</b>{' '}
              <span className="text-ink-2">{fault.mend}</span>
            </span>
          ))}
          {row.faults.length === 0 && item?.leftOut && item.leftOut !== 'before the start' ? (
            <span className="text-ink-3">{leftOutWords(item.leftOut, item.leftDetail)}</span>
          ) : null}
        </td>
      </tr>
    </>
  );
}
