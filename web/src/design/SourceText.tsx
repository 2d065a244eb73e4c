import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { Decoration, EditorView, keymap, MatchDecorator, ViewPlugin, type ViewUpdate } from '@codemirror/view';
import { useEffect, useRef } from 'react';

/** Headings stand out, and what only names a block or an element steps back. */
const MARKED = {
  markdown: /^(?:#{2,4} .*|::.*)$/gm,
  html: /<[^<>\n]*>/g,
};

function marked(regexp: RegExp) {
  const decorator = new MatchDecorator({
    regexp,
    decoration: ([line]) => Decoration.mark({ class: line.startsWith('#') ? 'cm-heading' : 'cm-named' }),
  });
  return ViewPlugin.fromClass(
    class {
      decorations;
      constructor(view: EditorView) {
        this.decorations = decorator.createDeco(view);
      }
      update(update: ViewUpdate) {
        this.decorations = decorator.updateDeco(update, this.decorations);
      }
    },
    { decorations: (plugin) => plugin.decorations },
  );
}

/** A text in Markdown or HTML, as long as an article. The editor owns the text; changes are told as they are typed. */
export default function SourceText({
  value,
  label,
  as = 'markdown',
  onChange,
}: {
  value: string;
  label: string;
  as?: keyof typeof MARKED;
  onChange: (value: string) => void;
}) {
  const place = useRef<HTMLDivElement>(null);
  const told = useRef(onChange);
  told.current = onChange;
  const begin = useRef({ value, label, as });
  useEffect(() => {
    const view = new EditorView({
      parent: place.current!,
      doc: begin.current.value,
      extensions: [
        history(),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        marked(MARKED[begin.current.as]),
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
  return <div ref={place} className="source-text" />;
}
