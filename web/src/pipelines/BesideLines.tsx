import type { ReactNode } from 'react';

/** Lines of a procedure on the left, and on a sheet of its own what stands beside each. */
export function BesideLines({ children }: { children: ReactNode }) {
  return (
    <div className="relative -mx-8 grid flex-1 grid-cols-[minmax(0,716fr)_minmax(0,564fr)] content-start border-t border-ink">
      <div
        aria-hidden
        data-screen=""
        className="absolute inset-y-0 right-0 w-[44.0625%] border-l border-rule-strong bg-sheet"
      />
      {children}
    </div>
  );
}
