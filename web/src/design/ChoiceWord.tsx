import type { ReactNode } from 'react';
import { ChoiceEditor } from './ChoiceEditor.tsx';
import { Word } from './Word.tsx';

/** A word that stands for one of a few: chosen by one press, which also closes the list. */
export function ChoiceWord<Value extends string>({
  label,
  value,
  options,
  onChoose,
  children,
  ...word
}: {
  label: string;
  value: Value;
  options: readonly { value: Value; says: string; does: string }[];
  onChoose: (value: Value) => void;
  /** What it reads, where that is not what is chosen. */
  children?: ReactNode;
  wrong?: string | null;
  disabled?: boolean;
  /** Whether it changes only what is shown, which everybody may. */
  anyone?: boolean;
  onClosed?: () => void;
}) {
  return (
    <Word
      label={label}
      {...word}
      editor={(close) => (
        <ChoiceEditor
          value={value}
          options={options}
          onChoose={(chosen) => {
            onChoose(chosen as Value);
            close();
          }}
        />
      )}
    >
      {children ?? options.find((one) => one.value === value)?.says}
    </Word>
  );
}
