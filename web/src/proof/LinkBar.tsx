import type { LinkTarget } from '@grivo/core';
import type { EditorView } from 'prosemirror-view';
import { useState } from 'react';
import { Button } from '../design/index.ts';
import { linkAt, putLink } from './commands.ts';
import { withScheme } from './WholeForm.tsx';

/** Where the selected words lead; a link at hand is changed as a whole. */
export function LinkBar({ view, onLeave }: { view: EditorView; onLeave: () => void }) {
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
      <p className="proof-bar">
        Pick the words that are to lead somewhere first.
        <Button look="quiet" anyone className="ml-auto" onClick={() => leave()}>
          Close
        </Button>
      </p>
    );
  return (
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
        <input type="checkbox" checked={sponsored} onChange={(event) => setSponsored(event.target.checked)} /> somebody
        pays for it
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
  );
}

function isAddress(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, hostname, pathname } = new URL(text);
  if (protocol === 'mailto:') return pathname.includes('@');
  return (protocol === 'http:' || protocol === 'https:') && (hostname.includes('.') || hostname === 'localhost');
}
