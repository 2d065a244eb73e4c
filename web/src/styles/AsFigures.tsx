import type { HouseStyleWhole } from '@grivo/contract';
import { FIGURE_NAMES, FIGURES, type FigureName, rounded } from '@grivo/core';
import { useState } from 'react';
import { Button, Head, Word } from '../design/index.ts';
import type { StyleEdit } from './useStyle.ts';

/** How the texts of a style sound, figure by figure: a tick a text, the range articles are held to, and the mean. */
export function AsFigures({ style: { learnt }, edit }: { style: HouseStyleWhole; edit: StyleEdit }) {
  return (
    <>
      <Head title="As figures" right={learnt ? 'a tick a text, grey: held to' : 'held to'} />
      {FIGURE_NAMES.map((name) => (
        <FigureLine
          key={name}
          name={name}
          learnt={learnt?.figures.find((one) => one.name === name) ?? null}
          edit={edit}
        />
      ))}
      {learnt ? (
        <>
          <Shares
            title="Person"
            shares={{ we: learnt.persons.we, you: learnt.persons.you, I: learnt.persons.I }}
            none="names nobody"
          />
          <Shares title="Begins with" shares={learnt.openings} none="nothing to tell" />
          <p className="pt-3">Words it favours</p>
          <p className="font-read text-[15px] leading-6">{learnt.favours.join(', ') || 'none stands out'}</p>
        </>
      ) : (
        <p className="pt-3 text-small text-ink-3">
          Give it texts to learn from, six or more, and its figures stand here. Ranges can be set by hand too.
        </p>
      )}
    </>
  );
}

type Learnt = NonNullable<HouseStyleWhole['learnt']>['figures'][number];

function FigureLine({ name, learnt, edit }: { name: FigureName; learnt: Learnt | null; edit: StyleEdit }) {
  const { says, unit, digits, scale } = FIGURES[name];
  const range = edit.words.ranges[name] ?? null;
  const put = (next: { from: number; to: number } | null) =>
    edit.put(({ ranges: { [name]: _, ...others } }) => ({ ranges: next ? { ...others, [name]: next } : others }));
  const top = Math.max(scale, range?.to ?? 0, ...(learnt?.each ?? [])) || 1;
  return (
    <div className="border-b border-rule-soft py-1.5">
      <p className="flex items-baseline justify-between gap-3">
        <span>{says}</span>
        <span className="flex items-baseline gap-2 whitespace-nowrap">
          <span className="fig">{learnt ? `${rounded(learnt.mean, digits)}${unit === '' ? '' : ` ${unit}`}` : ''}</span>
          <span className="text-small">
            <Word
              label={`Range of ${says.toLowerCase()}`}
              editor={(close) => <RangeOnce range={range} unit={unit} onPut={put} close={close} />}
            >
              {range ? `${range.from} to ${range.to}` : 'any'}
            </Word>
          </span>
        </span>
      </p>
      <Ticks
        label={`${says}: ${learnt ? `${rounded(learnt.mean, digits)} ${unit}` : 'not learnt'}${range ? `, held to ${range.from} to ${range.to}` : ''}`}
        top={top}
        each={learnt?.each ?? []}
        mean={learnt?.mean ?? null}
        range={range}
      />
    </div>
  );
}

/** A scale with a tick for each text above it, the range below, and the mean across. */
function Ticks({
  label,
  top,
  each,
  mean,
  range,
}: {
  label: string;
  top: number;
  each: readonly number[];
  mean: number | null;
  range: { from: number; to: number } | null;
}) {
  const at = (n: number) => `${Math.max(0, Math.min(1, n / top)) * 100}%`;
  return (
    <div role="img" aria-label={label} className="relative mt-0.5 h-4 w-full">
      {range ? (
        <span
          className="absolute top-1.5 h-1.5 bg-rule"
          style={{ left: at(range.from), right: `calc(100% - ${at(range.to)})` }}
        />
      ) : null}
      {each.map((n, i) => (
        <span
          key={`${i} ${n}`}
          className="absolute top-0 h-1 w-px bg-ink-3"
          style={{ left: `calc(${at(n)} - 0.5px)` }}
        />
      ))}
      <span className="absolute inset-x-0 top-3 h-px bg-rule-strong" />
      {[0, 0.25, 0.5, 0.75, 1].map((t) => (
        <span
          key={t}
          className="absolute top-3 h-1 w-px bg-rule-strong"
          style={{ left: `calc(${t * 100}% - 0.5px)` }}
        />
      ))}
      {mean === null ? null : (
        <span className="absolute top-1 h-3.5 w-[2.5px] bg-ink" style={{ left: `calc(${at(mean)} - 1px)` }} />
      )}
    </div>
  );
}

function RangeOnce({
  range,
  unit,
  onPut,
  close,
}: {
  range: { from: number; to: number } | null;
  unit: string;
  onPut: (range: { from: number; to: number } | null) => void;
  close: () => void;
}) {
  const [from, setFrom] = useState(range ? String(range.from) : '');
  const [to, setTo] = useState(range ? String(range.to) : '');
  const [a, b] = [Number(from.replace(',', '.')), Number(to.replace(',', '.'))];
  const empty = from.trim() === '' && to.trim() === '';
  const well = empty || (from.trim() !== '' && to.trim() !== '' && a >= 0 && b >= a && b <= 1_000);
  return (
    <form
      className="w-64"
      onSubmit={(event) => {
        event.preventDefault();
        if (!well) return;
        onPut(empty ? null : { from: a, to: b });
        close();
      }}
    >
      <div className="flex items-baseline gap-2">
        <input
          className="field fig !w-20"
          aria-label="From"
          inputMode="decimal"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        to
        <input
          className="field fig !w-20"
          aria-label="To"
          inputMode="decimal"
          value={to}
          onChange={(event) => setTo(event.target.value)}
        />
        <span className="text-small text-ink-3">{unit}</span>
      </div>
      <p className={`pt-1 text-small ${well ? 'text-ink-3' : 'text-red'}`}>
        {well
          ? 'Articles are held to it. Empty both to hold them to nothing.'
          : 'Two numbers, the first not above the second.'}
      </p>
      <div className="pt-2">
        <Button look="line" type="submit" disabled={!well}>
          Set it
        </Button>
      </div>
    </form>
  );
}

const FILLS = ['bg-ink', 'bg-ink-3', 'bg-rule', 'bg-transparent'];

/** Shares of a whole as one bar, the largest first. */
function Shares({ title, shares, none }: { title: string; shares: Readonly<Record<string, number>>; none: string }) {
  const parts = Object.entries(shares)
    .filter(([, share]) => share >= 0.005)
    .sort(([, a], [, b]) => b - a);
  return (
    <div className="border-b border-rule-soft py-2">
      <p>{title}</p>
      {parts.length === 0 ? (
        <p className="text-small text-ink-3">{none}</p>
      ) : (
        <>
          <div className="mt-1 flex h-2 w-full gap-px" aria-hidden>
            {parts.map(([name, share], i) => (
              <span
                key={name}
                className={`border border-ink ${FILLS[Math.min(i, FILLS.length - 1)]}`}
                style={{ width: `${share * 100}%` }}
              />
            ))}
          </div>
          <p className="flex flex-wrap gap-x-4 pt-0.5 text-small">
            {parts.map(([name, share]) => (
              <span key={name}>
                {name} <span className="fig text-ink-3">{Math.round(share * 100)} %</span>
              </span>
            ))}
          </p>
        </>
      )}
    </div>
  );
}
