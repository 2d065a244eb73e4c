import { LinkOffers } from '@grivo/contract';
import { type LinkTarget, sayingsIn } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import type { EditorView } from 'prosemirror-view';
import { useDeferredValue, useState } from 'react';
import { call } from '../api/call.ts';
import { Button } from '../design/index.ts';
import { linkAt, putLink } from './commands.ts';
import { LeadOn } from './LeadOn.tsx';
import { withScheme } from './WholeForm.tsx';

/** Where the selected words lead; a link at hand is changed as a whole. */
export function LinkBar({
  article,
  language,
  view,
  onLeave,
}: {
  article: string;
  language: string;
  view: EditorView;
  onLeave: () => void;
}) {
  const here = linkAt(view.state.selection.$from)?.to;
  const [address, setAddress] = useState(here?.to === 'address' ? here.address : '');
  const [sponsored, setSponsored] = useState(here?.to === 'address' && here.sponsored === true);
  const able = putLink(null)(view.state);
  const whole = withScheme(address);
  const wrong = address.trim() !== '' && !isAddress(whole);
  const leave = (target?: LinkTarget | null) => {
    if (target !== undefined) putLink(target)(view.state, view.dispatch);
    onLeave();
    view.focus();
  };
  if (!able)
    return (
      <LeadOn
        article={article}
        before={sayingsIn(language).readNext}
        view={view}
        onLeave={(command) => {
          command?.(view.state, view.dispatch);
          leave();
        }}
      />
    );
  return (
    <div>
      <form
        className="proof-bar"
        aria-label="Where the words lead"
        onSubmit={(event) => {
          event.preventDefault();
          if (isAddress(whole)) leave({ to: 'address', address: whole, ...(sponsored ? { sponsored } : {}) });
        }}
        onKeyDown={(event) => event.key === 'Escape' && leave()}
      >
        <label className="flex flex-1 items-baseline gap-2">
          {here?.to === 'article' ? 'Leads to an article of ours; instead to' : 'Leads to'}
          <input
            className="field flex-1"
            // biome-ignore lint/a11y/noAutofocus: it was asked for just now
            autoFocus
            placeholder="https://"
            aria-invalid={wrong ? true : undefined}
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
        </label>
        <label className="flex items-baseline gap-1">
          <input type="checkbox" checked={sponsored} onChange={(event) => setSponsored(event.target.checked)} />{' '}
          somebody pays for it
        </label>
        <Button look="line" anyone type="submit" disabled={!isAddress(whole)}>
          Link
        </Button>
        {here ? (
          <Button look="quiet" anyone onClick={() => leave(null)}>
            No link
          </Button>
        ) : null}
        <Button look="quiet" anyone onClick={() => leave()}>
          Close
        </Button>
      </form>
      <Offers article={article} words={isAddress(whole) ? '' : address.trim() || wordsAt(view)} onTake={leave} />
    </div>
  );
}

/** The words that are to lead somewhere: those picked, or those of the link at hand. */
function wordsAt({ state }: EditorView): string {
  const { from, to, $from } = state.selection;
  const here = linkAt($from);
  return state.doc.textBetween(here && from === to ? here.from : from, here && from === to ? here.end : to, ' ');
}

/** Pages of the blog and kept addresses the words could lead to, or those whose titles hold what is typed. */
function Offers({ article, words, onTake }: { article: string; words: string; onTake: (target: LinkTarget) => void }) {
  const asked = useDeferredValue(words.slice(0, 200));
  const offers = useQuery({
    queryKey: ['link offers', article, asked],
    queryFn: () =>
      call('GET', `/articles/${article}/link-offers?words=${encodeURIComponent(asked)}`, { answer: LinkOffers }),
    enabled: asked.trim().length > 1,
    placeholderData: (before) => before,
  });
  const all = asked.trim().length > 1 ? (offers.data?.offers ?? []) : [];
  if (all.length === 0) return null;
  return (
    <ul aria-label="Pages it could lead to" className="flex flex-wrap items-baseline gap-x-5 px-8 pb-2 text-small">
      {all.map(({ to, title, at }) => (
        <li key={at} className="max-w-72">
          <button type="button" className="act brackets max-w-full truncate" title={at} onClick={() => onTake(to)}>
            {title}
          </button>
        </li>
      ))}
    </ul>
  );
}

function isAddress(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, hostname, pathname } = new URL(text);
  if (protocol === 'mailto:') return pathname.includes('@');
  return (protocol === 'http:' || protocol === 'https:') && (hostname.includes('.') || hostname === 'localhost');
}
