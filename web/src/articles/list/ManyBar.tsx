import type { Article } from '@grivo/contract';
import { useState } from 'react';
import { Button, Confirm, DoneHere, LongJob, Trouble } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import { count, money, plural } from '../../words/figures.ts';
import { BackNote } from '../BackNote.tsx';
import { fits, LabelAll, MoveAll, PutAll, SaveAll } from './ManyWords.tsx';
import type { Many } from './useMany.ts';

type Asks = 'send back' | 'withdraw' | 'remove' | null;

/** Those of the picked each act fits. */
function sorted(picked: readonly Article[]) {
  const of = (...standings: Article['standing'][]) => picked.filter(({ standing }) => standings.includes(standing));
  return {
    picked,
    held: of('held'),
    open: of('held', 'stopped', 'in work', 'ready'),
    there: of('out', 'draft'),
    ended: of('out', 'withdrawn', 'set aside'),
  };
}
type Sorted = ReturnType<typeof sorted>;

/** What can be done to the articles that are picked, each with how many it fits. */
export function ManyBar({
  picked,
  more,
  many,
  onAll,
  onNone,
}: {
  picked: readonly Article[];
  /** How many the list has that are not picked. */
  more: number;
  many: Many;
  onAll: () => void;
  onNone: () => void;
}) {
  const [asks, setAsks] = useState<Asks>(null);
  const of = sorted(picked);
  const still = many.going === null;
  const pass = () => void many.start('Passing', of.held, { path: 'decide', body: { decide: 'pass' } });
  useViewKeys({
    p: still && of.held.length > 0 ? pass : null,
    b: still && of.held.length > 0 ? () => setAsks('send back') : null,
    Escape: still ? onNone : null,
  });
  if (many.going) return <Working many={many} />;
  return (
    <div className="sticky bottom-0 z-10 -mx-8 border-t border-ink bg-paper px-8 py-2">
      {asks === 'send back' ? (
        <BackNote
          asks={`What is to be done differently in ${of.held.length === 1 ? 'it' : `all ${count(of.held.length)}`}`}
          onLeave={() => setAsks(null)}
          onSend={(note) => {
            setAsks(null);
            void many.start('Sending back', of.held, { path: 'decide', body: { decide: 'send back', note } });
          }}
        />
      ) : (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <Sum picked={picked} />
          <ActButtons of={of} many={many} onPass={pass} onAsk={setAsks} />
          <MoveAll picked={picked} many={many} />
          <PutAll picked={picked} many={many} />
          <LabelAll picked={picked} many={many} />
          <SaveAll picked={picked} />
          <span className="ml-auto flex gap-4">
            {more > 0 ? (
              <Button look="quiet" anyone hint="A" onClick={onAll}>
                Pick all
              </Button>
            ) : null}
            <Button look="quiet" anyone hint="Esc" onClick={onNone}>
              Pick none
            </Button>
          </span>
        </div>
      )}
      <Asked asks={asks} of={of} many={many} onAsk={setAsks} />
    </div>
  );
}

function Sum({ picked }: { picked: readonly Article[] }) {
  const words = picked.reduce((sum, one) => sum + one.words, 0);
  const micros = picked.reduce((sum, one) => sum + one.micros, 0);
  return (
    <span className="fig whitespace-nowrap">
      {count(picked.length)} picked, {plural(words, 'word')}, {money(micros)}
    </span>
  );
}

function ActButtons({
  of: { picked, held, open, there, ended },
  many,
  onPass,
  onAsk,
}: {
  of: Sorted;
  many: Many;
  onPass: () => void;
  onAsk: (asks: Asks) => void;
}) {
  return (
    <>
      {held.length > 0 ? (
        <>
          <Button look="solid" anyone hint="P" onClick={onPass}>
            Pass {count(held.length)}
          </Button>
          <Button anyone hint="B" onClick={() => onAsk('send back')}>
            Send back…
          </Button>
        </>
      ) : null}
      <Button
        anyone
        disabled={open.length === 0}
        onClick={() => void many.start('Setting aside', open, { path: 'decide', body: { decide: 'set aside' } })}
      >
        Set aside{fits(open, picked)}
      </Button>
      <Button
        disabled={there.length === 0}
        title="Brings the newest text to every blog they are on"
        onClick={() => void many.start('Bringing up to date', there, { path: 'many', body: { do: 'update' } })}
      >
        Update on blogs{fits(there, picked)}
      </Button>
      <Button disabled={there.length === 0} onClick={() => onAsk('withdraw')}>
        Take back…{fits(there, picked)}
      </Button>
      <Button disabled={ended.length === 0} onClick={() => onAsk('remove')}>
        Remove…{fits(ended, picked)}
      </Button>
    </>
  );
}

/** What is asked before it is done. */
function Asked({
  asks,
  of: { there, ended },
  many,
  onAsk,
}: {
  asks: Asks;
  of: Sorted;
  many: Many;
  onAsk: (asks: Asks) => void;
}) {
  return (
    <>
      <Confirm
        open={asks === 'withdraw'}
        onOpen={(next) => onAsk(next ? 'withdraw' : null)}
        title={`Take ${plural(there.length, 'article')} back from the blogs?`}
        says="Readers do not find them there any more. The texts stay here and can be published again."
        does="Take back"
        onDo={() => void many.start('Taking back', there, { path: 'many', body: { do: 'withdraw' } })}
      />
      <Confirm
        open={asks === 'remove'}
        onOpen={(next) => onAsk(next ? 'remove' : null)}
        title={`Remove ${plural(ended.length, 'article')}?`}
        says="They go from the blogs and from Grivo, with the briefs they were made from and what else those made. This cannot be taken back."
        does="Remove"
        onDo={() => void many.start('Removing', ended, { path: 'many', body: { do: 'remove' } })}
      />
    </>
  );
}

function Working({ many: { going, stop } }: { many: Many }) {
  if (!going) return null;
  return (
    <div className="sticky bottom-0 z-10 -mx-8 border-t border-ink bg-paper px-8 py-2">
      <LongJob
        title={`${going.says} ${plural(going.of, 'article')}`}
        done={going.at}
        of={going.of}
        says={`${count(going.at)} of ${count(going.of)}`}
        onStop={stop}
      />
    </div>
  );
}

const MOST_SAID = 8;

/** What came of it, with each that was left and why. */
export function WhatCame({ many: { ended, forget } }: { many: Many }) {
  if (!ended) return null;
  const { says, done, left, rest, trouble } = ended;
  return (
    <div className="flex items-start gap-4 border-t border-rule py-2" aria-label="What came of it" role="group">
      <div className="min-w-0 flex-1">
        <DoneHere>
          {says}: {plural(done, 'article')} done
          {left.length > 0 ? `, ${count(left.length)} left as ${left.length === 1 ? 'it is' : 'they are'}` : ''}
          {rest > 0 ? `, ${count(rest)} not come to` : ''}.
        </DoneHere>
        {trouble ? <Trouble>{trouble}</Trouble> : null}
        <ul className="text-small">
          {left.slice(0, MOST_SAID).map(({ id, title, why }) => (
            <li key={id} className="truncate" title={`${title}: ${why}`}>
              <span className="work">{title || 'no title yet'}</span>: {why}
            </li>
          ))}
          {left.length > MOST_SAID ? <li>and {count(left.length - MOST_SAID)} more</li> : null}
        </ul>
      </div>
      <Button look="quiet" anyone onClick={forget}>
        Seen
      </Button>
    </div>
  );
}
