// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { type ReactNode, useState } from 'react';
import { describe, expect, test, vi } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { ChoiceEditor } from './ChoiceEditor.tsx';
import { ListEditor, NumberEditor, RangeEditor, TextEditor } from './editors.tsx';
import { RecordEditor, TestsEditor, ValuesEditor } from './listEditors.tsx';
import { Tick } from './Tick.tsx';
import { Word } from './Word.tsx';

/** What an editor is given changes as it says, as on the screen. */
function Kept<T>({
  first,
  children,
  said,
}: {
  first: T;
  said: (value: T) => void;
  children: (value: T, put: (value: T) => void) => ReactNode;
}) {
  const [value, setValue] = useState(first);
  return children(value, (next) => {
    setValue(next);
    said(next);
  });
}

describe('a number', () => {
  const shown = (value: number | null, none?: string) => {
    const said = vi.fn();
    const { hands } = onScreen(
      <Kept first={value} said={said}>
        {(now, put) => (
          <NumberEditor label="words" value={now} least={100} most={2_000} unit="words" none={none} onChange={put} />
        )}
      </Kept>,
    );
    return { said, hands, field: screen.getByLabelText<HTMLInputElement>('words, typed') };
  };

  test('is said as soon as it is one, and not before', async () => {
    const { said, hands, field } = shown(900);
    await hands.clear(field);
    await hands.type(field, '1,250');
    expect(said.mock.calls.map(([n]) => n)).toEqual([125, 1_250]);
  });

  test.each(['99', '2001', '9.5', 'many', '-300'])('‘%s’ is refused in words and changes nothing', async (typed) => {
    const { said, hands, field } = shown(null);
    await hands.clear(field);
    for (const letter of typed) await hands.type(field, letter);
    const last = said.mock.calls.at(-1)?.[0] ?? null;
    expect(screen.getByText('A whole number from 100 to 2,000.')).toBeDefined();
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(last === null || (last >= 100 && last <= 2_000)).toBe(true);
    expect(last).not.toBe(Number(typed));
  });

  test('may be none where that has a name', async () => {
    const { said, hands, field } = shown(900, 'as it fits');
    await hands.click(screen.getByRole('button', { name: 'as it fits' }));
    expect(said).toHaveBeenLastCalledWith(null);
    expect(field.value).toBe('');
  });

  test('is moved by keys of its handle', async () => {
    const { said, hands } = shown(900);
    screen.getByRole('slider').focus();
    await hands.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}');
    const moved = said.mock.calls.map(([n]) => n as number);
    expect(moved).toHaveLength(3);
    expect(moved[1]! > moved[0]!).toBe(true);
    expect(moved[2]).toBe(moved[0]);
  });
});

test('a range is said only while its first is not above its second', async () => {
  const said = vi.fn();
  const { hands } = onScreen(
    <RangeEditor label="sections" value={{ from: 4, to: 6 }} least={1} most={20} onChange={said} />,
  );
  const [from, to] = [screen.getByLabelText('sections, from'), screen.getByLabelText('sections, to')];
  await hands.clear(from);
  expect(screen.getByText(/Two whole numbers from 1 to 20/)).toBeDefined();
  await hands.type(from, '8');
  expect(said).not.toHaveBeenCalled();
  await hands.clear(to);
  await hands.type(to, '9');
  expect(said.mock.calls).toEqual([[{ from: 8, to: 9 }]]);
  expect(screen.queryByText(/Two whole numbers/)).toBeNull();
});

test('one of several is chosen, and is marked as the one', async () => {
  const said = vi.fn();
  const options = [
    { value: 'gut', says: 'gut', does: 'warm' },
    { value: 'steel', says: 'steel', does: 'bright' },
  ];
  const { hands } = onScreen(
    <Kept first="gut" said={said}>
      {(now, put) => <ChoiceEditor value={now} options={options} onChoose={put} />}
    </Kept>,
  );
  await hands.click(screen.getByRole('radio', { name: /steel/ }));
  expect(said.mock.calls).toEqual([['steel']]);
  const checked = screen.getAllByRole('radio').map((one) => one.getAttribute('aria-checked'));
  expect(checked).toEqual(['false', 'true']);
});

test('of a list some are picked, always in the order they are offered', async () => {
  const said = vi.fn();
  const options = ['maple', 'spruce', 'ebony'].map((value) => ({ value, says: value }));
  const { hands } = onScreen(
    <Kept first={['ebony']} said={said}>
      {(now, put) => <ListEditor value={now} options={options} onChange={put} />}
    </Kept>,
  );
  await hands.click(screen.getByRole('checkbox', { name: 'maple' }));
  await hands.click(screen.getByRole('checkbox', { name: 'ebony' }));
  expect(said.mock.calls).toEqual([[['maple', 'ebony']], [['maple']]]);
});

test('a text is said with every key, and Enter ends it while Shift and Enter begin a line', async () => {
  const [said, done] = [vi.fn(), vi.fn()];
  const { hands } = onScreen(<TextEditor label="subject" value="" onChange={said} onDone={done} />);
  await hands.type(screen.getByLabelText('subject'), 'a{Shift>}{Enter}{/Shift}b{Enter}');
  expect(said).toHaveBeenLastCalledWith('a\nb');
  expect(done).toHaveBeenCalledTimes(1);
});

test('values are one a line, blanks fall away, and too many are counted and not taken', async () => {
  const said = vi.fn();
  const { hands } = onScreen(<ValuesEditor label="categories" value={['bows']} most={2} onChange={said} />);
  const field = screen.getByLabelText('categories');
  await hands.type(field, '{Enter}  pegs {Enter}');
  expect(said).toHaveBeenLastCalledWith(['bows', 'pegs']);
  await hands.type(field, 'glue');
  expect(screen.getByText('At most 2; there are 3.')).toBeDefined();
  expect(said).toHaveBeenLastCalledWith(['bows', 'pegs']);
});

test('a record has what is filled and nothing that is empty', async () => {
  const said = vi.fn();
  const names = [
    { name: 'audience', says: 'For whom' },
    { name: 'place', says: 'Where' },
  ];
  const { hands } = onScreen(<RecordEditor value={{ place: 'home' }} names={names} onChange={said} />);
  await hands.type(screen.getByLabelText('For whom'), 'us');
  expect(said).toHaveBeenLastCalledWith({ audience: 'us', place: 'home' });
  await hands.clear(screen.getByLabelText('Where'));
  expect(said).toHaveBeenLastCalledWith({ audience: 'us' });
});

test('tests of a branch are added, changed, joined and taken out', async () => {
  const [said, join] = [vi.fn(), vi.fn()];
  const { hands } = onScreen(
    <TestsEditor
      value={[{ field: 'words', is: 'more than', value: '300' }]}
      join="all"
      kinds={['more than', 'filled']}
      fields={['words', 'title']}
      onChange={said}
      onJoin={join}
    />,
  );
  await hands.click(screen.getByRole('button', { name: 'one more' }));
  expect(said.mock.lastCall![0]).toHaveLength(2);
  await hands.selectOptions(screen.getByLabelText('Is 1'), 'filled');
  expect(screen.queryByLabelText('Compared with 1')).toBeNull();
  expect(said.mock.lastCall![0][0]).toMatchObject({ field: 'words', is: 'filled' });
  await hands.click(screen.getByRole('button', { name: 'all hold' }));
  expect(join).toHaveBeenCalledWith('any');
  await hands.click(screen.getAllByRole('button', { name: 'out' })[0]!);
  expect(said.mock.lastCall![0]).toEqual([{ field: 'words', is: 'filled', value: '' }]);
});

test('a tick is pressed by pointer, by its words and by the space bar, and Enter is left to the form', async () => {
  const said = vi.fn();
  const { hands } = onScreen(
    <Tick label="by hand" state={false} onChange={(on) => said(on)}>
      held after every step
    </Tick>,
  );
  const box = screen.getByRole('checkbox', { name: 'by hand' });
  await hands.click(box);
  await hands.click(screen.getByText('held after every step'));
  box.focus();
  await hands.keyboard(' ');
  await hands.keyboard('{Enter}');
  expect(said.mock.calls).toEqual([[true], [true], [true]]);
});

test('a word opens its editor by pointer and by key, and Escape gives the word its focus back', async () => {
  const { hands } = onScreen(
    <Word
      label="How long"
      editor={(close) => (
        <button type="button" onClick={close}>
          done with it
        </button>
      )}
    >
      30 days
    </Word>,
  );
  const word = screen.getByRole('button', { name: /30 days/ });
  await hands.click(word);
  await hands.click(screen.getByRole('button', { name: 'done with it' }));
  expect(screen.queryByRole('button', { name: 'done with it' })).toBeNull();
  word.focus();
  await hands.keyboard('{Enter}');
  expect(screen.getByRole('button', { name: 'done with it' })).toBeDefined();
  await hands.keyboard('{Escape}');
  expect(screen.queryByRole('button', { name: 'done with it' })).toBeNull();
  expect(document.activeElement).toBe(word);
});
