import type { ReactNode } from 'react';
import { Button, Empty } from '../design/index.ts';
import { useLabel } from './label.ts';

/** An empty list: because nothing in it carries the label everything is looked at by, or because there is nothing yet. */
export function NoneCarries({ what, children }: { what: string; children: ReactNode }) {
  const { name, only } = useLabel();
  if (name === null) return children;
  return (
    <Empty
      next={
        <Button look="word" anyone onClick={() => only(null)}>
          Show everything
        </Button>
      }
    >
      No {what} carries the label ‘{name}’.
    </Empty>
  );
}
