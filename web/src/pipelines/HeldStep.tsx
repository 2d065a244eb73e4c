import type { Hold } from '@grivo/contract';
import { textOf } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { z } from 'zod';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, TextArea, Trouble } from '../design/index.ts';
import { useKept, useKeptText } from '../words/keptText.ts';
import { AlikeBeside } from './AlikeBeside.tsx';
import { Given } from './Given.tsx';
import { HeldText } from './HeldText.tsx';
import { Judged, Judgement, Note, Notes, Outline, Section, Titles } from './holdEditors.tsx';
import { JudgedItems, Judgements } from './Judgements.tsx';
import { OnSubject } from './OnSubject.tsx';
import { PutResult, putSays } from './putSays.ts';

/** A step that waits for a person: what it proposes, in a fitting editor, and the three things to be said to it. */
export function HeldStep({ hold }: { hold: Hold }) {
  const [kept, keep] = useKept<Record<string, unknown>>(`change of ${hold.run}`);
  // The text has a keeper of its own.
  const [text, setText] = useState<string | null>(null);
  const change = { ...kept, ...(text === null ? {} : { text }) };
  const [note, setNote] = useKeptText(`note to ${hold.run}`);
  const say = useMutation({
    mutationFn: (body: object) => call('POST', `/briefs/${hold.brief}/holds/${hold.run}`, { body }),
    onSuccess: () => {
      keep(null);
      setNote(null);
    },
    onSettled: () => {
      for (const key of [['brief', hold.brief], ['briefs', hold.pipeline], ['today'], ['pipeline', hold.pipeline]])
        void queryClient.invalidateQueries({ queryKey: key });
    },
  });
  const put = (field: string, value: unknown) => keep({ ...kept, [field]: value });
  return (
    <section className="my-2 border border-blue bg-paper px-3 pt-2" aria-label={`Held: ${hold.kind}`}>
      <p className="pb-1 text-small font-semibold">It waits for you: {asks(hold)}</p>
      <Proposed hold={hold} change={change} put={put} />
      <HeldText hold={hold} onChange={setText} />
      {note === null ? (
        <Passing
          changed={Object.keys(change).length > 0}
          busy={say.isPending}
          onSay={say.mutate}
          change={change}
          onBack={() => setNote('')}
          onUndo={kept === null ? null : () => keep(null)}
        />
      ) : (
        <SendingBack note={note} busy={say.isPending} onNote={setNote} onSay={say.mutate} />
      )}
      {say.isError ? <Trouble>{inWords(say.error)}</Trouble> : null}
    </section>
  );
}

const BAR = 'sticky bottom-0 -mx-3 flex items-center gap-4 bg-paper px-3 pt-3 pb-2';

/** Passing it as it is or as changed, sending it back, setting it aside. */
function Passing({
  changed,
  busy,
  change,
  onSay,
  onBack,
  onUndo,
}: {
  changed: boolean;
  busy: boolean;
  change: object;
  onSay: (body: object) => void;
  onBack: () => void;
  onUndo: (() => void) | null;
}) {
  return (
    <div className={BAR}>
      <Button look="solid" busy={busy ? 'Passing it' : null} onClick={() => onSay({ decide: 'pass', change })}>
        {changed ? 'Pass it as changed' : 'Pass it'}
      </Button>
      <Button onClick={onBack}>Send back…</Button>
      <Button look="quiet" onClick={() => onSay({ decide: 'set aside' })}>
        Set aside
      </Button>
      {onUndo ? (
        <Button look="quiet" className="ml-auto" onClick={onUndo}>
          Take my changes back
        </Button>
      ) : null}
    </div>
  );
}

function SendingBack({
  note,
  busy,
  onNote,
  onSay,
}: {
  note: string;
  busy: boolean;
  onNote: (note: string | null) => void;
  onSay: (body: object) => void;
}) {
  return (
    <>
      <div className="pt-2">
        <TextArea
          label="What is to be done differently"
          rows={2}
          autoFocus
          value={note}
          onChange={(event) => onNote(event.target.value)}
        />
      </div>
      <div className={BAR}>
        <Button
          look="solid"
          disabled={note.trim() === ''}
          busy={busy ? 'Sending' : null}
          onClick={() => onSay({ decide: 'send back', note })}
        >
          Send it back
        </Button>
        <Button look="quiet" onClick={() => onNote(null)}>
          Not after all
        </Button>
      </div>
    </>
  );
}

function asks({ kind, proposed }: Hold): string {
  const asked = proposed?.['asked'] as { for?: string; note?: string } | undefined;
  if (asked) return asked.note || `for ${asked.for ?? 'you'} to look at`;
  switch (kind) {
    case 'title':
      return 'choose a title, or write one';
    case 'outline':
      return 'shift, drop or reword the sections';
    case 'notes':
      return 'correct the notes';
    case 'check':
      return 'it does not fit the check';
    case 'put':
      return 'it is still too like what it was, or its sources';
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
        choices={(titles ?? [proposed['title']]).filter((title) => title !== '')}
        value={String(change['title'] ?? proposed['title'])}
        onChange={(title) => put('title', title)}
      />
    );
  const outline = z.array(Section).safeParse(change['outline'] ?? proposed['outline']).data;
  if (outline) return <Outline sections={outline} onChange={(next) => put('outline', next)} />;
  const notes = z.array(Note).safeParse(change['notes'] ?? proposed['notes']).data;
  if (notes) return <Notes notes={notes} onChange={(next) => put('notes', next)} />;
  const check = (proposed['check'] ?? {}) as Failed;
  if (check.failing) return <Failing check={check} />;
  if (proposed['fitting']) return <Given gave={proposed} />;
  const said = PutResult.safeParse(proposed['put']).data;
  if (said)
    return (
      <>
        <p className="text-small">{putSays(said)}</p>
        <AlikeBeside alike={proposed['alike']} />
      </>
    );
  const judged = JudgedItems.safeParse(proposed['judgements']).data;
  if (judged) return <Judgements items={judged} />;
  const judgement = Judged.safeParse(change['judgement'] ?? proposed['judgement']).data;
  if (judgement) return <Judgement judgement={judgement} onChange={(next) => put('judgement', next)} />;
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

/** What a check that fails gave. */
interface Failed {
  failing?: string[];
  alike?: unknown;
  ours?: unknown;
}

/** What is wrong with an article, each rule as a sentence, with what it repeats beside it. */
function Failing({ check: { failing = [], alike, ours } }: { check: Failed }) {
  return (
    <>
      <ul className="text-small text-red">
        {failing.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <OnSubject ours={ours} />
      <AlikeBeside alike={alike} />
    </>
  );
}
