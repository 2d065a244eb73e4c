import { type AlsoHere as Other, WhoIsHere } from '@grivo/contract';
import { type ArticleDocument, blockText } from '@grivo/core';
import { useEffect, useRef, useState } from 'react';
import { call } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { inARow } from '../words/list.ts';

/** How often a page says that it is still there. */
const EVERY_MS = 8_000;
/** Words of a block by which it is named. */
const NAMED_BY = 5;

/** Who else has an article open, while this page has it open too. */
export function useAlsoHere(id: string, block: string | null, editing: boolean): readonly Other[] {
  const [others, setOthers] = useState<readonly Other[]>([]);
  const [page] = useState(() => `p${freshKey().slice(0, 12)}`);
  const now = useRef({ block, editing });
  now.current = { block, editing };
  useEffect(() => {
    let gone = false;
    const say = async () => {
      // Nobody looks at a page in the background.
      if (document.visibilityState === 'hidden') return;
      const answer = await call('POST', `/articles/${id}/here`, {
        body: { page, ...now.current },
        answer: WhoIsHere,
      }).catch(() => null);
      if (answer && !gone) setOthers(answer.others);
    };
    void say();
    const timer = setInterval(() => void say(), EVERY_MS);
    return () => {
      gone = true;
      clearInterval(timer);
      void call('POST', `/articles/${id}/here`, {
        body: { page, block: null, editing: false, leaves: true },
      }).catch(() => undefined);
    };
  }, [id, page]);
  return others;
}

/** A sentence that says who else is here, and leads to where they are. */
export function AlsoHere({
  id,
  block,
  editing,
  body,
  onPlace,
}: {
  id: string;
  /** Where this page is. */
  block: string | null;
  editing: boolean;
  body: ArticleDocument['body'];
  onPlace: (block: string) => void;
}) {
  const others = useAlsoHere(id, block, editing);
  if (others.length === 0) return null;
  const [first] = others;
  const at = others.length === 1 ? body.find((one) => one.id === first!.block) : undefined;
  const edits = others.filter((one) => one.editing);
  return (
    <span role="status" className="text-blue">
      {inARow(others.map(nameOf))} {verb(others, edits.length)}
      {at ? (
        <>
          , at{' '}
          <button type="button" className="act quiet brackets" onClick={() => onPlace(at.id)}>
            ‘{shortened(blockText(at))}’
          </button>
        </>
      ) : null}
    </span>
  );
}

const nameOf = ({ name, me }: Other): string => (me ? 'You, in another window,' : name);

function verb(others: readonly Other[], edits: number): string {
  const [one] = others;
  if (others.length > 1) return edits > 0 ? 'have it open too, and it is being edited' : 'have it open too';
  return `${one!.me ? 'have' : 'has'} it open too${one!.editing ? `, and ${one!.me ? 'edit' : 'edits'}` : ''}`;
}

function shortened(text: string): string {
  const words = text.split(/\s+/);
  return words.length <= NAMED_BY ? text || 'a picture' : `${words.slice(0, NAMED_BY).join(' ')} …`;
}
