import { type ArticleWhole, type Hold, LOOKED_OVER } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { read } from '../api/queries.ts';
import { Button, Trouble } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { moment } from '../words/time.ts';
import { BackNote } from './BackNote.tsx';
import { decide, decideBehind, useDecisions, whyNot } from './decisions.ts';

/** What waits for a person's word about this article; null when nothing does. */
export function useHold(article: ArticleWhole | undefined): Hold | null {
  const holds = useQuery({ ...read.holds(article?.brief ?? ''), enabled: article?.standing === 'held' });
  const all = holds.data?.holds ?? [];
  const own = all.find(({ proposed }) => (proposed?.['article'] as { id?: string } | undefined)?.id === article?.id);
  return own ?? all.find(({ path }) => article?.line === '' || path.startsWith(`${article?.line}/`)) ?? null;
}

/**
 * A person's word on the article that waits for it: pass, send back with a note, set aside; then the next one that waits is
 * opened, so that a batch is looked over by one key each.
 */
export function Decide({
  article,
  hold,
  next,
  now,
  onDecided,
}: {
  article: ArticleWhole;
  hold: Hold;
  /** The next article that waits; null when this is the last. */
  next: string | null;
  now: number;
  onDecided: () => void;
}) {
  const [back, setBack] = useState(false);
  const go = useNavigate();
  const isGoing = useDecisions(({ going }) => going.includes(article.id));
  const say = useMutation({
    mutationFn: (body: object) => decide(article, hold, body),
    onSuccess: () => {
      setBack(false);
      onDecided();
    },
  });
  /** Where another waits it is opened at once: the word goes its way behind it. */
  const word = (body: object) => {
    if (next === null) return say.mutate(body);
    decideBehind(article, hold, body);
    setBack(false);
    onDecided();
    void go(`/articles/${next}?held`);
  };
  const looks = LOOKED_OVER.includes(hold.kind);
  const may = looks && !say.isPending && !isGoing && !back;
  const pass = () => word({ decide: 'pass', change: {} });
  const aside = () => word({ decide: 'set aside' });
  useViewKeys({
    p: may ? pass : null,
    b: may ? () => setBack(true) : null,
    x: may ? aside : null,
  });
  return (
    <section className="border-t border-ink bg-paper px-8 py-2" aria-label="Your word on it">
      {!back ? (
        <div className="flex flex-wrap items-center gap-3">
          {looks ? (
            <Words
              article={article}
              now={now}
              busy={say.isPending || isGoing}
              onPass={pass}
              onBack={() => setBack(true)}
              onAside={aside}
            />
          ) : (
            <Button look="line" anyone onClick={() => void go(`/pipelines/${hold.pipeline}?brief=${hold.brief}`)}>
              Look at what ‘{hold.kind}’ asks
            </Button>
          )}
          <span className="text-small text-ink-2">{asked(hold, article.doubts.length)}</span>
        </div>
      ) : (
        <BackNote
          busy={say.isPending}
          onLeave={() => setBack(false)}
          onSend={(note) => word({ decide: 'send back', note, to: null })}
        />
      )}
      {say.isError ? <Trouble>{whyNot(say.error)}</Trouble> : null}
    </section>
  );
}

function Words({
  article,
  now,
  busy,
  onPass,
  onBack,
  onAside,
}: {
  article: ArticleWhole;
  now: number;
  busy: boolean;
  onPass: () => void;
  onBack: () => void;
  onAside: () => void;
}) {
  return (
    <>
      <Button look="solid" anyone hint="P" busy={busy ? 'Passing it' : null} onClick={onPass}>
        {article.dueDesk === null ? 'Pass it' : `Pass it for its slot, ${moment(article.dueDesk, now)}`}
      </Button>
      <Button anyone hint="B" onClick={onBack}>
        Send back with a note
      </Button>
      <Button anyone hint="X" onClick={onAside}>
        Set aside
      </Button>
    </>
  );
}

function asked({ kind, proposed }: Hold, doubts: number): string {
  const note = (proposed?.['asked'] as { note?: string } | undefined)?.note;
  const failing = (proposed?.['check'] as { failing?: string[] } | undefined)?.failing;
  const why = failing ? `The check says: ${failing.join('; ')}.` : note ? `${note}.` : `It waits at ‘${kind}’.`;
  if (doubts === 0) return why;
  return `${why} ${doubts === 1 ? 'One mark is' : `${doubts} marks are`} open; if you pass it, it goes out as it is.`;
}
