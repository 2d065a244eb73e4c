import { autocompletion, type CompletionContext, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { Decoration, EditorView, keymap, MatchDecorator, ViewPlugin, type ViewUpdate } from '@codemirror/view';
import { type Ref, useEffect, useImperativeHandle, useRef } from 'react';

export interface FieldTextHandle {
  /** Puts a field in at the caret. */
  insert: (name: string) => void;
}

interface Offered {
  name: string;
  says: string;
}

/** Fields stand out in the text as the words that are filled. */
const inBraces = new MatchDecorator({ regexp: /\{\{[^{}]*\}\}/g, decoration: Decoration.mark({ class: 'cm-filled' }) });
const filled = ViewPlugin.fromClass(
  class {
    decorations;
    constructor(view: EditorView) {
      this.decorations = inBraces.createDeco(view);
    }
    update(update: ViewUpdate) {
      this.decorations = inBraces.updateDeco(update, this.decorations);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

/** What can stand after two opening braces: the names that exist here, closed when they are put in. */
function namesAfterBraces(fields: () => readonly Offered[]) {
  return (context: CompletionContext) => {
    const typed = context.matchBefore(/\{\{\s*[\w.]*$/);
    if (!typed) return null;
    const from = typed.from + /^\{\{\s*/.exec(typed.text)![0].length;
    const closed = /^\s*\}\}/.test(context.state.sliceDoc(context.pos, context.pos + 20));
    const spaced = /\s$/.test(context.state.sliceDoc(typed.from, from));
    return {
      from,
      options: fields().map(({ name, says }) => ({
        label: name,
        detail: says,
        apply: `${spaced ? '' : ' '}${name}${closed ? '' : ' }}'}`,
      })),
    };
  };
}

/** A long text with fields in double braces, which are offered while typing. */
export default function FieldText({
  value,
  label,
  fields,
  wrong,
  onChange,
  ref,
}: {
  value: string;
  label: string;
  fields: readonly Offered[];
  wrong: boolean;
  onChange: (value: string) => void;
  ref: Ref<FieldTextHandle>;
}) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  // The editor owns the text; what it needs of the screen is read when it needs it.
  const now = useRef({ fields, onChange });
  now.current = { fields, onChange };
  const begin = useRef({ value, label });
  useEffect(() => {
    const made = new EditorView({
      parent: place.current!,
      doc: begin.current.value,
      extensions: [
        history(),
        keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
        autocompletion({ override: [namesAfterBraces(() => now.current.fields)], icons: false }),
        filled,
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': begin.current.label, 'aria-multiline': 'true' }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) now.current.onChange(update.state.doc.toString());
        }),
      ],
    });
    view.current = made;
    // In a popover it is what was asked for; on a page it would take the focus away.
    if (place.current!.closest('.pop')) made.focus();
    return () => made.destroy();
  }, []);
  useEffect(() => {
    view.current?.contentDOM.setAttribute('aria-invalid', String(wrong));
  }, [wrong]);
  useImperativeHandle(ref, () => ({
    insert: (name) => {
      view.current?.dispatch(view.current.state.replaceSelection(`{{ ${name} }}`));
      view.current?.focus();
    },
  }));
  return <div ref={place} className="field-text text-proc" />;
}
