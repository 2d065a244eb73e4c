import { useEffect, useLayoutEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { create } from 'zustand';
import { VIEWS } from './views.ts';

/** What the shell has open. */
export const useShell = create<{
  finding: boolean;
  keys: boolean;
  find: (open: boolean) => void;
  showKeys: (open: boolean) => void;
}>((set) => ({
  finding: false,
  keys: false,
  find: (finding) => set({ finding }),
  showKeys: (keys) => set({ keys }),
}));

/** Whether keys belong to what is being typed in. */
export function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable="true"]') !== null;
}

/** When 'g' was last pressed: for a moment the next letter names a view. */
let goingSince = 0;

export function isGoing(): boolean {
  return Date.now() - goingSince < 1_200;
}

/** Keys that work everywhere: / finds, ? shows the keys, G then a letter goes to a view. */
export function useKeys(): void {
  const go = useNavigate();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (typing(event.target) || event.metaKey || event.ctrlKey || event.altKey) return;
      if (event.key === '/') {
        event.preventDefault();
        useShell.getState().find(true);
      } else if (event.key === '?') useShell.getState().showKeys(true);
      else if (event.key === 'g') goingSince = Date.now();
      else if (isGoing()) {
        goingSince = 0;
        const view = VIEWS.find(({ key }) => key === event.key);
        if (view || event.key === 's') {
          event.preventDefault();
          void go(view?.path ?? '/settings');
        }
      }
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [go]);
}

/**
 * Keys of one view, by their letter; left alone while somebody types or something is open. What a key does is what is on the
 * page when it is pressed: it is known as soon as that is drawn, so that no press goes to what stood there before.
 */
export function useViewKeys(keys: Record<string, (() => void) | null>): void {
  const now = useRef(keys);
  useLayoutEffect(() => {
    now.current = keys;
  });
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (typing(event.target) || event.altKey) return;
      const held = event.ctrlKey || event.metaKey ? 'Ctrl+' : '';
      if (document.querySelector('[role="dialog"], [role="alertdialog"]')) return;
      const does = now.current[`${held}${event.key}`];
      if (!does) return;
      event.preventDefault();
      does();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}
