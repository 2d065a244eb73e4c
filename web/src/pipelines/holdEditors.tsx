import { z } from 'zod';
import { Button, NumberEditor } from '../design/index.ts';

export const Section = z.object({ heading: z.string(), says: z.string(), passages: z.array(z.string()) });
export const Note = z.object({
  heading: z.string(),
  points: z.array(z.object({ point: z.string(), passages: z.array(z.string()) })),
});
export type Section = z.infer<typeof Section>;
export type Note = z.infer<typeof Note>;

/** Titles to choose from, or one of one's own. */
export function Titles({
  choices,
  value,
  onChange,
}: {
  choices: readonly string[];
  value: string;
  onChange: (title: string) => void;
}) {
  return (
    <div>
      <div role="radiogroup" aria-label="Titles">
        {choices.map((title) => (
          <button
            key={title}
            type="button"
            role="radio"
            aria-checked={title === value}
            className="choice"
            onClick={() => onChange(title)}
          >
            <span className={`font-read ${title === value ? 'hl hl-full' : ''}`}>{title}</span>
            <em className="fig">{title.length}</em>
          </button>
        ))}
      </div>
      <input
        className="field"
        aria-label="A title of your own"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </div>
  );
}

/** Sections to be shifted, reworded, dropped or added. */
export function Outline({ sections, onChange }: { sections: Section[]; onChange: (next: Section[]) => void }) {
  const put = (at: number, change: Partial<Section>) =>
    onChange(sections.map((section, i) => (i === at ? { ...section, ...change } : section)));
  const shift = (at: number, by: number) => {
    const next = [...sections];
    const [moved] = next.splice(at, 1);
    next.splice(at + by, 0, moved!);
    onChange(next);
  };
  return (
    <ol className="flex flex-col gap-2">
      {sections.map((section, i) => (
        <li key={i} className="grid grid-cols-[20px_1fr_auto] items-baseline gap-2">
          <span className="fig text-ink-3">{i + 1}</span>
          <span>
            <input
              className="field font-read"
              aria-label={`Heading ${i + 1}`}
              value={section.heading}
              onChange={(event) => put(i, { heading: event.target.value })}
            />
            <LineArea
              label={`What section ${i + 1} must say`}
              value={section.says}
              onChange={(says) => put(i, { says })}
            />
          </span>
          <span className="flex gap-2 text-small whitespace-nowrap">
            <Button look="quiet" disabled={i === 0} onClick={() => shift(i, -1)}>
              up
            </Button>
            <Button look="quiet" disabled={i === sections.length - 1} onClick={() => shift(i, 1)}>
              down
            </Button>
            <Button
              look="quiet"
              disabled={sections.length === 1}
              onClick={() => onChange(sections.filter((_, at) => at !== i))}
            >
              drop
            </Button>
          </span>
        </li>
      ))}
      <li>
        <Button
          look="quiet"
          onClick={() => onChange([...sections, { heading: 'A new section', says: '', passages: [] }])}
        >
          one more section
        </Button>
      </li>
    </ol>
  );
}

/** What each section must say, to be corrected or dropped. */
export function Notes({ notes, onChange }: { notes: Note[]; onChange: (next: Note[]) => void }) {
  const put = (at: number, points: Note['points']) =>
    onChange(notes.map((note, i) => (i === at ? { ...note, points } : note)));
  return (
    <div className="flex flex-col gap-2" role="group" aria-label="Notes">
      {notes.map((note, i) => (
        <div key={i}>
          <p className="font-read text-small font-medium">{note.heading}</p>
          {note.points.map((point, n) => (
            <span key={n} className="flex items-baseline gap-2">
              <LineArea
                label={`Note ${n + 1} of ${note.heading}`}
                value={point.point}
                onChange={(text) =>
                  put(
                    i,
                    note.points.map((one, at) => (at === n ? { ...one, point: text } : one)),
                  )
                }
              />
              <Button
                look="quiet"
                className="text-small"
                onClick={() =>
                  put(
                    i,
                    note.points.filter((_, at) => at !== n),
                  )
                }
              >
                drop
              </Button>
            </span>
          ))}
          <Button look="quiet" onClick={() => put(i, [...note.points, { point: '', passages: [] }])}>
            one more note
          </Button>
        </div>
      ))}
    </div>
  );
}

export const Judged = z.object({ score: z.number(), kind: z.string(), reason: z.string() });
export type Judged = z.infer<typeof Judged>;

/** A judgement, which a person may overrule by another score. */
export function Judgement({ judgement, onChange }: { judgement: Judged; onChange: (next: Judged) => void }) {
  return (
    <p className="text-small">
      <NumberEditor
        label="Score"
        value={judgement.score}
        least={0}
        most={10}
        unit="of 10"
        none={undefined}
        onChange={(score) => onChange({ ...judgement, score: score ?? judgement.score })}
      />
      {judgement.kind}. {judgement.reason}
    </p>
  );
}

/** One line of text that is shown whole, however long it is. */
function LineArea({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <textarea
      className="field resize-none text-small [field-sizing:content]"
      rows={1}
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value.replace(/\n/g, ' '))}
    />
  );
}
