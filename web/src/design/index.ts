export { Button, type ButtonProps, Key } from './Button.tsx';
export { ChoiceEditor, ListEditor, NumberEditor, RangeEditor, TextEditor } from './editors.tsx';
export { Field, TextArea } from './Field.tsx';
export { Mark, type MarkState, saysOf, stateOf } from './Mark.tsx';
export { NameForm } from './NameForm.tsx';
export { Handle, Ruler } from './Ruler.tsx';
export { ActionBar, Confirm, DoneHere, Empty, Flag, Head, Loading, LongJob, Trouble } from './Say.tsx';
export { Tick } from './Tick.tsx';
export { Word } from './Word.tsx';
