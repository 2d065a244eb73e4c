import { LinkOffers } from '@grivo/contract';
import type { LinkTarget } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import type { Command } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { call } from '../api/call.ts';
import { Button } from '../design/index.ts';
import { leadOn } from './commands.ts';

/** What is there while no words are picked: sentences that lead on from the paragraph at hand. */
export function LeadOn({
  article,
  before,
  view,
  onLeave,
}: {
  article: string;
  before: string;
  view: EditorView;
  onLeave: (command?: Command) => void;
}) {
  return (
    <div>
      <p className="proof-bar">
        Pick the words that are to lead somewhere first, or have a sentence added.
        <Button look="quiet" anyone className="ml-auto" onClick={() => onLeave()}>
          Close
        </Button>
      </p>
      <Sentences article={article} before={before} view={view} onTake={onLeave} />
    </div>
  );
}

/** Sentences that lead on from the paragraph at hand, to pages of the blog that are about the same. */
function Sentences({
  article,
  before,
  view,
  onTake,
}: {
  article: string;
  before: string;
  view: EditorView;
  onTake: (command: Command) => void;
}) {
  const { $from } = view.state.selection;
  const text = $from.parent.textContent.slice(0, 900);
  const offers = useQuery({
    queryKey: ['link offers', article, 'near', text],
    queryFn: () =>
      call('GET', `/articles/${article}/link-offers?near=yes&words=${encodeURIComponent(text)}`, {
        answer: LinkOffers,
      }),
    enabled: text.trim().length > 1,
  });
  const fitting = (offers.data?.offers ?? []).map((offer) => ({
    ...offer,
    command: leadOn(before, offer.title, offer.to),
  }));
  const there = linkedIn(view);
  const able = fitting.filter(({ to, command }) => !there.has(keyOf(to)) && command(view.state));
  if (able.length === 0)
    return (
      <p className="px-8 pb-2 text-small text-ink-3">
        {offers.isFetching
          ? 'Looking for pages about the same'
          : 'No page of the blog is about what this paragraph says.'}
      </p>
    );
  return (
    <ul aria-label="Sentences that lead on" className="px-8 pb-2 text-small">
      {able.map(({ title, at, command }) => (
        <li key={at} className="min-h-6">
          <button type="button" className="act brackets max-w-full truncate" title={at} onClick={() => onTake(command)}>
            {before}: {title}.
          </button>
        </li>
      ))}
    </ul>
  );
}

const keyOf = (target: LinkTarget): string => (target.to === 'article' ? target.article : target.address);

/** Where the article leads already. */
function linkedIn({ state }: EditorView): Set<string> {
  const there = new Set<string>();
  state.doc.descendants(({ marks }) => {
    for (const { attrs } of marks) if (attrs['to']) there.add(keyOf(attrs['to'] as LinkTarget));
  });
  return there;
}
