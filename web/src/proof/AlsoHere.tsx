import { type AlsoHere as Other, WhoIsHere } from '@grivo/contract';
import { type ArticleDocument, blockText } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { call } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient } from '../api/queries.ts';
import { inARow } from '../words/list.ts';

/** How often a page says that it is still there. */
const EVERY_MS = 8_000;
/** Words of a block by which it is named. */
const NAMED_BY = 5;

/** So long a place must be kept before it is told: who types goes from letter to letter. */
const CALM_MS = 400;

/** Who else has an article open, while this page has it open too; what changes of that is heard at once. */
export function useAlsoHere(id: string, block: string | null, editing: boolean): readonly Other[] {
  const [page] = useState(() => `p${freshKey().slice(0, 12)}`);
  const now = useRef({ block, editing });
  now.current = { block, editing };
  const here = useQuery({
    // What others say touches it, by the article.
    queryKey: ['presence', id, page],
    queryFn: () => call('POST', `/articles/${id}/here`, { body: { page, ...now.current }, answer: WhoIsHere }),
    // Nobody looks at a page in the background.
    refetchInterval: EVERY_MS,
    refetchIntervalInBackground: false,
    retry: false,
    gcTime: 0,
  });
  const told = useRef(`${block} ${editing}`);
  useEffect(() => {
    if (told.current === `${block} ${editing}`) return;
    const calm = setTimeout(() => {
      told.current = `${block} ${editing}`;
      void queryClient.invalidateQueries({ queryKey: ['presence', id, page] });
    }, CALM_MS);
    return () => clearTimeout(calm);
  }, [id, page, block, editing]);
  useEffect(() => {
    const leave = () => {
      void call('POST', `/articles/${id}/here`, {
        body: { page, block: null, editing: false, leaves: true },
        outlives: true,
      }).catch(() => undefined);
    };
    // A page that is loaded again or closed is taken down without a word to what is on it.
    const back = ({ persisted }: PageTransitionEvent) => {
      // Kept by the browser as it was, and shown again: it is here again.
      if (persisted) void queryClient.invalidateQueries({ queryKey: ['presence', id, page] });
    };
    window.addEventListener('pagehide', leave);
    window.addEventListener('pageshow', back);
    return () => {
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('pageshow', back);
      leave();
    };
  }, [id, page]);
  return here.data?.others ?? NOBODY;
}

const NOBODY: readonly Other[] = [];

/** A sentence that says who else is here, and leads to where they are. */
export function AlsoHere({
  others,
  body,
  onPlace,
}: {
  others: readonly Other[];
  body: ArticleDocument['body'];
  onPlace: (block: string) => void;
}) {
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

export const nameOf = ({ name, me }: Other): string => (me ? 'You, in another window,' : name);

function verb(others: readonly Other[], edits: number): string {
  const [one] = others;
  if (others.length > 1) return edits > 0 ? 'have it open too, and it is being edited' : 'have it open too';
  return `${one!.me ? 'have' : 'has'} it open too${one!.editing ? `, and ${one!.me ? 'edit' : 'edits'}` : ''}`;
}

function shortened(text: string): string {
  const words = text.split(/\s+/);
  return words.length <= NAMED_BY ? text || 'a picture' : `${words.slice(0, NAMED_BY).join(' ')} …`;
}
