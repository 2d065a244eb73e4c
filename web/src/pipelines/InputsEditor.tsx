import { ProcedureInput } from '@grivo/core';
import { useState } from 'react';
import { Button } from '../design/index.ts';

interface Row {
  name: string;
  asks: string;
  otherwise: string;
}

const rowOf = ({ name, asks, otherwise }: ProcedureInput): Row => ({ name, asks, otherwise: otherwise ?? '' });

/** What is wrong with a row; null when it is whole, and for one that is still empty. */
function wrongOf(row: Row, others: readonly Row[]): string | null {
  if (row.name === '' && row.asks === '' && row.otherwise === '') return null;
  if (!ProcedureInput.shape.name.safeParse(row.name).success)
    return 'A name begins with a small letter and has letters and digits only, as audience.';
  if (others.some(({ name }) => name === row.name)) return `There are two called ‘${row.name}’.`;
  return row.asks.trim() === '' ? 'Say how it is asked for.' : null;
}

/** What is asked for: names, how they are asked for, and what counts where nothing is given. */
export function InputsEditor({
  value,
  onChange,
}: {
  value: readonly ProcedureInput[];
  onChange: (value: ProcedureInput[]) => void;
}) {
  const [rows, setRows] = useState<Row[]>(
    value.length === 0 ? [{ name: '', asks: '', otherwise: '' }] : value.map(rowOf),
  );
  const wrongs = rows.map((row, i) => wrongOf(row, rows.slice(0, i)));
  const set = (next: Row[]) => {
    setRows(next);
    // Kept only while all of it is whole; what is half typed stays here.
    if (next.some((row, i) => wrongOf(row, next.slice(0, i)) !== null)) return;
    onChange(
      next
        .filter(({ name }) => name !== '')
        .map(({ name, asks, otherwise }) => ({
          name,
          asks: asks.trim(),
          otherwise: otherwise.trim() === '' ? null : otherwise.trim(),
        })),
    );
  };
  const put = (at: number, change: Partial<Row>) => set(rows.map((row, i) => (i === at ? { ...row, ...change } : row)));
  return (
    <div className="w-[34rem] max-w-full">
      {rows.map((row, i) => (
        <InputRow
          key={i}
          row={row}
          wrong={wrongs[i] ?? null}
          onChange={(change) => put(i, change)}
          onOut={() => set(rows.filter((_, j) => j !== i))}
        />
      ))}
      {rows.length < 20 ? (
        <Button look="quiet" onClick={() => setRows([...rows, { name: '', asks: '', otherwise: '' }])}>
          One more
        </Button>
      ) : null}
    </div>
  );
}

function InputRow({
  row: { name, asks, otherwise },
  wrong,
  onChange,
  onOut,
}: {
  row: Row;
  wrong: string | null;
  onChange: (change: Partial<Row>) => void;
  onOut: () => void;
}) {
  return (
    <div className="pb-2">
      <div className="grid grid-cols-[8rem_1fr_9rem_auto] items-end gap-3">
        <label className="text-small text-ink-3">
          Name
          <input className="field" value={name} onChange={(event) => onChange({ name: event.target.value.trim() })} />
        </label>
        <label className="text-small text-ink-3">
          Asked for as
          <input className="field" value={asks} onChange={(event) => onChange({ asks: event.target.value })} />
        </label>
        <label className="text-small text-ink-3">
          Otherwise
          <input
            className="field"
            placeholder="must be given"
            value={otherwise}
            onChange={(event) => onChange({ otherwise: event.target.value })}
          />
        </label>
        <Button look="quiet" aria-label={`Take ${name || 'this'} out`} onClick={onOut}>
          take out
        </Button>
      </div>
      {wrong ? <p className="pt-0.5 text-small text-red">{wrong}</p> : null}
    </div>
  );
}
