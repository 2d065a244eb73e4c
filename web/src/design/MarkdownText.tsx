import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { Decoration, EditorView, keymap, MatchDecorator, ViewPlugin, type ViewUpdate } from '@codemirror/view';
import { useEffect, useRef } from 'react';

/** Headings stand out, and lines that only name a block step back. */
const lines = new MatchDecorator({
  regexp: /^(?:#{2,4} .*|::.*)$/gm,
  decoration: ([line]) => Decoration.mark({ class: line.startsWith('#') ? 'cm-heading' : 'cm-named' }),
});
const marked = ViewPlugin.fromClass(
  class {
    decorations;
    constructor(view: EditorView) {
      this.decorations = lines.createDeco(view);
    }
    update(update: ViewUpdate) {
      this.decorations = lines.updateDeco(update, this.decorations);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

/** A text in Markdown, as long as an article. The editor owns the text; changes are told as they are typed. */
export default function MarkdownText({
  value,
  label,
  onChange,
}: {
  value: string;
  label: string;
  onChange: (value: string) => void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const told = useRef(onChange);
  told.current = onChange;
  const begin = useRef({ value, label });
  useEffect(() => {
    const view = new EditorView({
      parent: place.current!,
      doc: begin.current.value,
      extensions: [
        history(),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        marked,
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({
          'aria-label': begin.current.label,
          'aria-multiline': 'true',
          spellcheck: 'true',
        }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) told.current(update.state.doc.toString());
        }),
      ],
    });
    view.focus();
    return () => view.destroy();
  }, []);
  return <div ref={place} className="markdown-text" />;
}
