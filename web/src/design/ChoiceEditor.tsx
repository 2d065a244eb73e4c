/** One of several, each with what it does. */
export function ChoiceEditor({
  value,
  options,
  onChoose,
}: {
  value: string;
  options: readonly { value: string; says: string; does: string; not?: string }[];
  onChoose: (value: string) => void;
}) {
  return (
    <div role="radiogroup" className="choices -mx-1">
      {options.map((option) => (
        <button
          key={option.value}
          type="button"
          role="radio"
          aria-checked={option.value === value}
          className="choice"
          disabled={option.not !== undefined && option.value !== value}
          onClick={() => onChoose(option.value)}
        >
          <span>
            <span className={option.value === value ? 'hl hl-full font-semibold' : ''}>{option.says}</span>
          </span>
          <em>{option.not ?? option.does}</em>
        </button>
      ))}
      {options.length === 0 ? <p className="col-span-2 px-2 text-ink-3">There is none yet.</p> : null}
    </div>
  );
}
