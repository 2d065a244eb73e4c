import type { Person } from '@grivo/contract';
import { type ReactNode, useEffect } from 'react';
import { useLocation } from 'react-router';
import { useChanges, useLine } from '../api/events.ts';
import { Band } from './Band.tsx';
import { KeyMap } from './KeyMap.tsx';
import { useKeys } from './keys.ts';
import { Masthead } from './Masthead.tsx';

/** Masthead and band above every view; the band never scrolls away. */
export function Shell({ person, children }: { person: Person; children: ReactNode }) {
  useChanges();
  useKeys();
  const open = useLine((line) => line.open);
  const { pathname } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new view begins at its top
  useEffect(() => {
    // What it returns is no clean-up: newer browsers return a promise.
    window.scrollTo(0, 0);
  }, [pathname]);
  return (
    <div className="flex min-h-screen flex-col">
      <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-marker focus:p-2">
        To the work
      </a>
      <div data-screen="" className="sticky top-0 z-20 bg-paper">
        <Masthead person={person} />
        <Band />
        {open ? null : (
          <p role="status" className="border-b border-red bg-red-wash px-8 py-1 text-small text-red">
            There is no connection to Grivo. What you see may be out of date; it is refreshed when the connection is
            back.
          </p>
        )}
      </div>
      <main id="work" tabIndex={-1} className="flex flex-1 flex-col px-8">
        {children}
      </main>
      <KeyMap />
    </div>
  );
}
