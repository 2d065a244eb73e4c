import type { Picture } from '@grivo/contract';
import { type Inline, inlineText, plainInline } from '@grivo/core';
import { useState } from 'react';
import { useParams } from 'react-router';
import { Button, ChoiceWord, Field, TextArea } from '../design/index.ts';
import { CutPicture } from '../pictures/CutPicture.tsx';
import { PickPicture } from '../pictures/PickPicture.tsx';
import { Redraw } from '../pictures/Redraw.tsx';
import type { WholeBlock } from './schema.ts';

type Of<T extends WholeBlock['type']> = Extract<WholeBlock, { type: T }>;

/** What a block that is changed as a whole can be told, open while it is picked. */
export function WholeForm({
  block,
  open,
  onChange,
  onRemove,
}: {
  block: WholeBlock;
  open: boolean;
  onChange: (block: WholeBlock) => void;
  onRemove: () => void;
}) {
  if (!open) return null;
  return (
    <div data-form className="whole-form" contentEditable={false}>
      <Fields block={block} onChange={onChange} />
      <p className="flex gap-4 pt-1 text-small">
        <Button look="quiet" anyone onClick={onRemove}>
          Take it out
        </Button>
        <span className="text-ink-3">Alt with the arrows moves it up and down.</span>
      </p>
    </div>
  );
}

function Fields({ block, onChange }: { block: WholeBlock; onChange: (block: WholeBlock) => void }) {
  switch (block.type) {
    case 'figure':
      return <FigureFields block={block} onChange={onChange} />;
    case 'video':
      return (
        <>
          <Line label="Its title" value={block.title} onDone={(title) => onChange({ ...block, title })} />
          <Line
            label="The page it is watched on"
            value={block.address}
            onDone={(address) => onChange({ ...block, address })}
          />
        </>
      );
    case 'chart':
      return <ChartFields block={block} onChange={onChange} />;
    case 'call to action':
      return <CallFields block={block} onChange={onChange} />;
    case 'fold':
      return (
        <Line label="What leads to the rest" value={block.words} onDone={(words) => onChange({ ...block, words })} />
      );
    case 'related articles':
      return (
        <Line label="Above the articles" value={block.heading} onDone={(heading) => onChange({ ...block, heading })} />
      );
    case "owner's markup":
      return (
        <Long
          label="Markup of your own, as it goes to the blog"
          value={block.markup}
          onDone={(markup) => onChange({ ...block, markup })}
        />
      );
    case 'placeholder':
      return (
        <Line
          label={`Which ${block.wants} belongs here`}
          value={block.says}
          onDone={(says) => onChange({ ...block, says })}
        />
      );
    case 'contents':
      return <p className="text-small text-ink-3">It lists the headings by itself.</p>;
  }
}

/** A field whose words count once it is left or Enter is pressed. */
function Line({
  label,
  value,
  onDone,
  hint,
}: {
  label: string;
  value: string;
  onDone: (value: string) => void;
  hint?: string;
}) {
  const [text, setText] = useState(value);
  const done = () => text !== value && onDone(text);
  return (
    <Field
      label={label}
      hint={hint}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={done}
      onKeyDown={(event) => event.key === 'Enter' && done()}
    />
  );
}

function Long({ label, value, onDone }: { label: string; value: string; onDone: (value: string) => void }) {
  const [text, setText] = useState(value);
  return (
    <TextArea
      label={label}
      rows={4}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => text !== value && onDone(text)}
    />
  );
}

/** A caption or a credit: words as they are while they stay the same, plain ones otherwise. */
const reworded = (was: Inline[] | undefined, text: string): Inline[] =>
  was && inlineText(was) === text ? was : plainInline(text);

const SIZES = [
  { value: 'small', says: 'small', does: 'a third of the width' },
  { value: 'medium', says: 'medium', does: 'half of the width' },
  { value: 'full', says: 'full', does: 'as wide as the text' },
] as const;
const SIDES = [
  { value: 'left', says: 'left', does: 'text runs past it on the right' },
  { value: 'middle', says: 'in the middle', does: 'no text beside it' },
  { value: 'right', says: 'right', does: 'text runs past it on the left' },
] as const;

/** A figure with another picture: its words and its credit come along, where it stands stays. */
function withPicture(block: Of<'figure'>, { file, width, height, words, credit }: Picture): Of<'figure'> {
  const { credit: _, ...rest } = block;
  return {
    ...rest,
    file,
    width,
    height,
    alternative: words || block.alternative,
    ...(credit === '' ? {} : { credit: plainInline(credit) }),
  };
}

function FigureFields({ block, onChange }: { block: Of<'figure'>; onChange: (block: WholeBlock) => void }) {
  const { id } = useParams();
  return (
    <>
      <p className="text-small">
        <PickPicture
          says="Take another picture"
          article={id}
          onPick={(picture) => onChange(withPicture(block, picture))}
        />
      </p>
      {id ? (
        <Redraw
          article={id}
          file={block.file}
          shows={block.alternative}
          onUse={(picture) => onChange(withPicture(block, picture))}
        />
      ) : null}
      <CutPicture file={block.file} onCut={({ file, width, height }) => onChange({ ...block, file, width, height })} />
      <Line
        label="Alternative text, for those who do not see it"
        hint="What is seen, in a sentence; not the title again"
        value={block.alternative}
        onDone={(alternative) => onChange({ ...block, alternative })}
      />
      <Line
        label="Caption"
        value={inlineText(block.caption ?? [])}
        onDone={(text) => onChange({ ...block, caption: reworded(block.caption, text) })}
      />
      <Line
        label="Credit"
        value={inlineText(block.credit ?? [])}
        onDone={(text) => onChange({ ...block, credit: reworded(block.credit, text) })}
      />
      {block.lead ? null : (
        <p className="text-small">
          It stands{' '}
          <ChoiceWord
            label="Size"
            value={block.size ?? 'full'}
            options={SIZES}
            onChoose={(size) => onChange({ ...block, size })}
          />{' '}
          and{' '}
          <ChoiceWord
            label="Side"
            value={block.side ?? 'middle'}
            options={SIDES}
            onChoose={(side) => onChange({ ...block, side })}
          />
          .
        </p>
      )}
    </>
  );
}

function CallFields({ block, onChange }: { block: Of<'call to action'>; onChange: (block: WholeBlock) => void }) {
  return (
    <>
      <Line
        label="The words before the button"
        value={inlineText(block.content)}
        onDone={(text) => onChange({ ...block, content: reworded(block.content, text) })}
      />
      <Line label="On the button" value={block.button} onDone={(button) => onChange({ ...block, button })} />
      <Line
        label="Where it leads"
        value={block.link.to === 'address' ? block.link.address : 'an article of ours'}
        onDone={(address) => onChange({ ...block, link: { to: 'address', address: withScheme(address) } })}
      />
    </>
  );
}

/** An address as people type it, with what they leave out. */
export function withScheme(address: string): string {
  const text = address.trim();
  return text === '' || /^[a-z][a-z\d+.-]*:/i.test(text) ? text : `https://${text}`;
}

const CHART_FORMS = [
  { value: 'bar', says: 'bars', does: 'things beside each other' },
  { value: 'line', says: 'a line', does: 'what follows on each other: years, days, temperatures' },
  { value: 'dots', says: 'dots', does: 'measurements that are not joined' },
] as const;

function ChartFields({ block, onChange }: { block: Of<'chart'>; onChange: (block: WholeBlock) => void }) {
  const [wrong, setWrong] = useState<string | null>(null);
  const written = block.labels
    .map((label, i) => [label, ...block.series.map(({ values }) => values[i] ?? '')].join(', '))
    .join('\n');
  const [text, setText] = useState(written);
  const done = () => {
    const read = readFigures(text, block.series);
    setWrong('wrong' in read ? read.wrong : null);
    if (!('wrong' in read) && text !== written) onChange({ ...block, ...read });
  };
  return (
    <>
      <p className="text-small">
        Drawn as{' '}
        <ChoiceWord
          label="How it is drawn"
          value={block.form}
          options={CHART_FORMS}
          onChoose={(form) => onChange({ ...block, form })}
        />
      </p>
      {block.series.map((one, i) => (
        <Line
          key={i}
          label={
            block.series.length === 1 ? 'What is counted, or its unit' : `What series ${i + 1} counts, or its unit`
          }
          value={one.name}
          onDone={(name) =>
            onChange({ ...block, series: block.series.map((it, n) => (n === i ? { ...it, name } : it)) })
          }
        />
      ))}
      <TextArea
        label={`A line each: what it is, then ${block.series.map(({ name }) => name || 'the figure').join(', ')}`}
        rows={Math.min(10, block.labels.length + 1)}
        wrong={wrong}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={done}
      />
      <Line
        label="What it shows, for those who do not see it"
        value={block.alternative}
        onDone={(alternative) => onChange({ ...block, alternative })}
      />
      <Line
        label="Caption"
        value={inlineText(block.caption ?? [])}
        onDone={(words) => onChange({ ...block, caption: reworded(block.caption, words) })}
      />
    </>
  );
}

/** The figures of a chart as they are typed, a line a label. */
export function readFigures(
  text: string,
  series: Of<'chart'>['series'],
): Pick<Of<'chart'>, 'labels' | 'series'> | { wrong: string } {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  if (lines.length === 0) return { wrong: 'a chart shows at least one figure' };
  const rows: { label: string; values: number[] }[] = [];
  for (const [i, line] of lines.entries()) {
    const cells = line.split(',').map((cell) => cell.trim());
    const values = cells.slice(-series.length).map(Number);
    const label = cells.slice(0, -series.length).join(', ');
    if (label === '' || values.some((value) => !Number.isFinite(value)) || cells.slice(-series.length).includes(''))
      return {
        wrong: `line ${i + 1}: a name, then ${series.length === 1 ? 'a figure' : `${series.length} figures`}, parted by commas`,
      };
    rows.push({ label, values });
  }
  return {
    labels: rows.map(({ label }) => label),
    series: series.map((one, i) => ({ ...one, values: rows.map(({ values }) => values[i]!) })),
  };
}
