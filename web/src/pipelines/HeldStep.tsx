import type { Hold } from '@grivo/contract';
import { textOf } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, TextArea, Trouble } from '../design/index.ts';

const Section = z.object({ heading: z.string(), says: z.string(), passages: z.array(z.string()) });
const Note = z.object({
  heading: z.string(),
  points: z.array(z.object({ point: z.string(), passages: z.array(z.string()) })),
});
type Section = z.infer<typeof Section>;
type Note = z.infer<typeof Note>;

/** A step that waits for a person: what it proposes, in a fitting editor, and the three things to be said to it. */
export function HeldStep({ hold }: { hold: Hold }) {
  const [change, setChange] = useState<Record<string, unknown>>({});
  const [note, setNote] = useState<string | null>(null);
  const say = useMutation({
    mutationFn: (body: object) => call('POST', `/briefs/${hold.brief}/holds/${hold.run}`, { body }),
    onSettled: () => {
      for (const key of [['brief', hold.brief], ['briefs', hold.pipeline], ['today'], ['pipeline', hold.pipeline]])
        void queryClient.invalidateQueries({ queryKey: key });
    },
  });
  const put = (field: string, value: unknown) => setChange((now) => ({ ...now, [field]: value }));
  return (
    <section className="my-2 border border-blue bg-paper px-3 pt-2" aria-label={`Held: ${hold.kind}`}>
      <p className="pb-1 text-small font-semibold">It waits for you: {asks(hold)}</p>
      <Proposed hold={hold} change={change} put={put} />
      {note === null ? null : (
        <div className="pt-2">
          <TextArea
            label="What is to be done differently"
            rows={2}
            autoFocus
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </div>
      )}
      <div className="sticky bottom-0 -mx-3 flex items-center gap-4 bg-paper px-3 pt-3 pb-2">
        {note === null ? (
          <>
            <Button
              look="solid"
              busy={say.isPending ? 'Letting go' : null}
              onClick={() => say.mutate({ decide: 'pass', change })}
            >
              {Object.keys(change).length > 0 ? 'Pass it as changed' : 'Pass it'}
            </Button>
            <Button onClick={() => setNote('')}>Send back…</Button>
            <Button look="quiet" onClick={() => say.mutate({ decide: 'set aside' })}>
              Set aside
            </Button>
          </>
        ) : (
          <>
            <Button
              look="solid"
              disabled={note.trim() === ''}
              busy={say.isPending ? 'Sending' : null}
              onClick={() => say.mutate({ decide: 'send back', note })}
            >
              Send it back
            </Button>
            <Button look="quiet" onClick={() => setNote(null)}>
              Not after all
            </Button>
          </>
        )}
      </div>
      {say.isError ? <Trouble>{inWords(say.error)}</Trouble> : null}
    </section>
  );
}

function asks({ kind, proposed }: Hold): string {
  const asked = proposed?.['asked'] as { for?: string; note?: string } | undefined;
  if (asked) return asked.note || `for ${asked.for ?? 'you'} to see that all is well`;
  switch (kind) {
    case 'title':
      return 'choose a title, or write one';
    case 'outline':
      return 'shift, drop or reword the sections';
    case 'notes':
      return 'correct the notes';
    case 'check':
      return 'it does not fit the check';
    case 'judge':
      return 'it was judged below what you ask for';
    default:
      return `look at what ‘${kind}’ made`;
  }
}

function Proposed({
  hold,
  change,
  put,
}: {
  hold: Hold;
  change: Record<string, unknown>;
  put: (field: string, value: unknown) => void;
}) {
  const proposed = hold.proposed ?? {};
  const titles = z.array(z.string()).safeParse(proposed['titleChoices']).data;
  if (typeof proposed['title'] === 'string')
    return (
      <Titles
        choices={titles ?? [proposed['title']]}
        value={String(change['title'] ?? proposed['title'])}
        onChange={(title) => put('title', title)}
      />
    );
  const outline = z.array(Section).safeParse(change['outline'] ?? proposed['outline']).data;
  if (outline) return <Outline sections={outline} onChange={(next) => put('outline', next)} />;
  const notes = z.array(Note).safeParse(change['notes'] ?? proposed['notes']).data;
  if (notes) return <Notes notes={notes} onChange={(next) => put('notes', next)} />;
  const failing = (proposed['check'] as { failing?: string[] } | undefined)?.failing;
  if (failing)
    return (
      <ul className="text-small text-red">
        {failing.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    );
  const judgement = proposed['judgement'] as { score: number; kind: string; reason: string } | undefined;
  if (judgement)
    return (
      <p className="text-small">
        {judgement.score} of 10, {judgement.kind}. {judgement.reason}
      </p>
    );
  const own = Object.entries(proposed).filter(([name]) => name !== 'asked' && name !== 'article');
  return (
    <dl className="text-small">
      {own.map(([name, value]) => (
        <div key={name} className="flex gap-2">
          <dt className="text-ink-3">{name}</dt>
          <dd className="min-w-0 truncate">{textOf(value)}</dd>
        </div>
      ))}
    </dl>
  );
}

function Titles({
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

function Outline({ sections, onChange }: { sections: Section[]; onChange: (next: Section[]) => void }) {
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

function Notes({ notes, onChange }: { notes: Note[]; onChange: (next: Note[]) => void }) {
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
        </div>
      ))}
    </div>
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
