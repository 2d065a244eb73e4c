import type { ButtonHTMLAttributes, ReactNode } from 'react';
import { useMay } from './may.tsx';

export type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & {
  /** Solid: the one thing to do on a screen. Line: others. Word: in a sentence. */
  look?: 'solid' | 'line' | 'word' | 'quiet';
  hint?: string;
  /** What it is doing now; it cannot be pressed meanwhile. */
  busy?: string | null;
  /** It changes nothing, so that whoever reads may press it. */
  anyone?: boolean;
  children: ReactNode;
};

export function Button({
  look = 'line',
  hint,
  busy,
  anyone = false,
  children,
  className = '',
  disabled,
  ...rest
}: ButtonProps) {
  const may = useMay();
  if (!may && !anyone) return null;
  const kind = { solid: 'btn', line: 'btn line', word: 'act', quiet: 'act quiet' }[look];
  return (
    <button
      type="button"
      className={`${kind} brackets ${busy ? 'busy' : ''} ${className}`}
      disabled={disabled && !busy}
      aria-disabled={busy ? true : undefined}
      {...rest}
      onClick={busy ? undefined : rest.onClick}
    >
      {busy ?? children}
      {hint && !busy ? <Key>{hint}</Key> : null}
    </button>
  );
}

/** A key in its hairline box. */
export function Key({ children }: { children: ReactNode }) {
  return <kbd className="kbd">{children}</kbd>;
}
