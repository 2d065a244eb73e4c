import { createContext, type ReactNode, useContext } from 'react';

const May = createContext(true);

/** Whether who looks may change what is shown; what changes it is not offered else. */
export const useMay = (): boolean => useContext(May);

/** A part of the screen that only some may change; the others read it. */
export function Only({ if: may, children }: { if: boolean; children: ReactNode }) {
  return <May value={may}>{children}</May>;
}
