import { Head, LinesOnce, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { linesIn } from './houseWords.ts';
import type { StyleEdit } from './useStyle.ts';

/** What is true of us: the writer may say it, and articles can rest on it. */
export function Facts({ edit: { words, put } }: { edit: StyleEdit }) {
  const { facts } = words;
  return (
    <div className="pt-4">
      <Head title="Facts about us" right={facts.length === 0 ? '' : plural(facts.length, 'fact')} />
      <ul className="pt-1">
        {facts.slice(0, 8).map((fact) => (
          <li key={fact} className="border-b border-rule-soft py-1">
            {fact}
          </li>
        ))}
      </ul>
      <p className="pt-2 text-proc leading-7">
        {facts.length > 8 ? `and ${facts.length - 8} more. ` : ''}
        <Word
          label="Facts about us"
          editor={(close) => (
            <LinesOnce
              label="Facts about us"
              rows={8}
              value={facts.join('\n')}
              hint="One a line, as a whole sentence. They are given to the writer as a source."
              problemOf={(text) => {
                const long = linesIn(text).find((line) => line.length > 500);
                if (long) return `“${long.slice(0, 30)}…” has more than 500 letters.`;
                return linesIn(text).length > 100 ? '100 facts are the most.' : null;
              }}
              onPut={(text) => put({ facts: linesIn(text) })}
              close={close}
            />
          )}
        >
          {facts.length === 0 ? 'Say what is true of us' : 'Change them'}
        </Word>
      </p>
    </div>
  );
}

/** Texts under names, for instructions and standing texts. */
export function Values({ edit: { words, put } }: { edit: StyleEdit }) {
  const { values } = words;
  return (
    <div className="pt-4">
      <Head title="Named texts" right="as {{ house.name }}" />
      {values.length > 0 ? (
        <dl className="pt-1">
          {values.map(({ name, text }) => (
            <div key={name} className="flex gap-3 border-b border-rule-soft py-1">
              <dt className="fig shrink-0">{name}</dt>
              <dd className="min-w-0 break-words text-ink-2">{text}</dd>
            </div>
          ))}
        </dl>
      ) : null}
      <p className="pt-2 text-proc leading-7">
        <Word
          label="Named texts"
          editor={(close) => (
            <LinesOnce
              label="Named texts"
              rows={6}
              value={values.map(({ name, text }) => `${name}: ${text}`).join('\n')}
              hint="A line each: a name as shopName, a colon, the text. Steps and standing texts say it as {{ house.shopName }}."
              problemOf={(text) => {
                const read = readValues(text);
                return read.ok ? null : read.problem;
              }}
              onPut={(text) => {
                const read = readValues(text);
                if (read.ok) put({ values: read.values });
              }}
              close={close}
            />
          )}
        >
          {values.length === 0 ? 'Name a text that many steps use' : 'Change them'}
        </Word>
      </p>
    </div>
  );
}

type Named = { name: string; text: string };

function readValues(text: string): { ok: true; values: Named[] } | { ok: false; problem: string } {
  const values: Named[] = [];
  for (const line of linesIn(text)) {
    const at = line.indexOf(':');
    const [name, said] = [line.slice(0, at).trim(), line.slice(at + 1).trim()];
    if (at < 0 || said === '')
      return { ok: false, problem: `“${line.slice(0, 30)}” has no colon with a text after it.` };
    if (!/^[a-z][A-Za-z0-9]{0,39}$/.test(name))
      return {
        ok: false,
        problem: `“${name.slice(0, 30)}” is no name: letters and figures alone, a small letter first.`,
      };
    if (values.some((one) => one.name === name)) return { ok: false, problem: `There are two texts named “${name}”.` };
    values.push({ name, text: said });
  }
  return values.length > 50 ? { ok: false, problem: '50 named texts are the most.' } : { ok: true, values };
}
