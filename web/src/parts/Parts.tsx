import { type ReactNode, useState } from 'react';
import {
  Button,
  ChoiceEditor,
  Confirm,
  DoneHere,
  Empty,
  ExpressionEditor,
  Field,
  Flag,
  Head,
  InstructionEditor,
  Key,
  ListEditor,
  Loading,
  LongJob,
  Mark,
  NumberEditor,
  RangeEditor,
  Ruler,
  TestsEditor,
  TextArea,
  Tick,
  Trouble,
  ValuesEditor,
  Word,
} from '../design/index.ts';

const STATES = ['done', 'busy', 'wait', 'stop', 'plan', 'aside'] as const;

/** Every part in every condition, for those who build screens. */
export default function Parts() {
  return (
    <>
      <div className="flex h-[60px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Parts</h1>
        <span className="text-ink-3">Each in every condition it can be in. Shape says it first, colour second.</span>
      </div>
      <div className="-mx-8 grid grid-cols-4 border-t border-ink max-[1100px]:grid-cols-2">
        <Column>
          <Words1 />
          <Words2 />
          <Words3 />
        </Column>
        <Column>
          <Editors1 />
          <Editors2 />
        </Column>
        <Column>
          <Marks />
        </Column>
        <Column>
          <Said1 />
          <Said2 />
        </Column>
      </div>
    </>
  );
}

function Words1() {
  const [words, setWords] = useState<number | null>(1_400);
  return (
    <>
      <Head title="Editable word" right="open it" />
      <Shown name="rest">
        about{' '}
        <Word
          label="words"
          editor={() => (
            <NumberEditor
              label="words"
              value={words}
              least={100}
              most={10_000}
              unit="words"
              onChange={setWords}
              consequence="The sources carry 1,500, about 0.24 €."
            />
          )}
        >
          {String(words)}
        </Word>{' '}
        words
      </Shown>
      <Shown name="invalid">
        about{' '}
        <Word label="words" wrong="needs a number" editor={() => null}>
          many
        </Word>
      </Shown>
      <Shown name="locked">
        about{' '}
        <Word label="words" disabled editor={() => null}>
          1,400
        </Word>{' '}
        words
      </Shown>
    </>
  );
}

function Words2() {
  const [on, setOn] = useState(true);
  return (
    <>
      <Head title="Button" right="solid, hairline, word" />
      <div className="flex flex-wrap items-center gap-4 py-3">
        <Button look="solid" hint="T">
          Take 6
        </Button>
        <Button>Later</Button>
        <Button look="word">Mend</Button>
        <Button look="quiet">other</Button>
        <Button look="solid" disabled>
          Take 6
        </Button>
        <Button disabled>Later</Button>
        <Button look="solid" busy="Taking 2 of 6">
          Take 6
        </Button>
      </div>
      <Head title="Field" />
      <div className="flex flex-col gap-3 py-3">
        <Field label="Address" placeholder="Address of the blog" />
        <Field label="Address" defaultValue="crockhaven/journal" wrong="No dot. crockhaven.example?" />
        <TextArea label="Instruction" rows={2} defaultValue="Write for someone who has just opened a jar." />
      </div>
      <Head title="Tick" />
      <div className="flex gap-4 py-3">
        <Tick label="one" state={on} onChange={setOn} /> on or off{' '}
        <Tick label="some" state="some" onChange={() => undefined} /> some
      </div>
      <Head title="Tests" right="what a branch depends on" />
      <div className="pop my-3">
        <TestsEditor
          value={[
            { field: 'judgement.score', is: 'above', value: '6' },
            { field: 'title', is: 'filled', value: '' },
          ]}
          join="all"
          kinds={['filled', 'empty', 'above', 'below']}
          fields={['judgement', 'title']}
          onChange={() => undefined}
          onJoin={() => undefined}
        />
      </div>
    </>
  );
}

function Words3() {
  return (
    <>
      <Head title="Expression" right="with its functions" />
      <div className="pop my-3">
        <ExpressionEditor
          label="expression"
          value={'before(subject, ":'}
          problemOf={() => 'at character 17: this text is not closed'}
          functions={[{ call: 'before(text, mark)', says: 'what stands before the first mark' }]}
          fields={['subject']}
          onChange={() => undefined}
        />
      </div>
    </>
  );
}

function Editors1() {
  const [words, setWords] = useState<number | null>(1_400);
  const [range, setRange] = useState({ from: 5, to: 7 });
  const [person, setPerson] = useState('we');
  return (
    <>
      <Head title="Number" right="ruler and field" />
      <div className="pop my-3">
        <NumberEditor label="words" value={words} least={100} most={10_000} unit="words" onChange={setWords} />
      </div>
      <Head title="Range" />
      <div className="pop my-3">
        <RangeEditor label="sections" value={range} least={1} most={20} unit="sections" onChange={setRange} />
      </div>
      <Head title="Long instruction" right="with its fields" />
      <div className="pop my-3">
        <InstructionEditor
          label="Own instruction"
          value="Write for someone who has just opened {{ thing }}."
          fields={[
            { name: 'subject', says: 'always there' },
            { name: 'passages', says: 'always there' },
          ]}
          problemOf={(text) => (text.includes('{{ thing }}') ? 'No step above gives ‘thing’.' : null)}
          onChange={() => undefined}
        />
      </div>
      <Head title="Values" right="one a line" />
      <div className="pop my-3">
        <ValuesEditor label="values" value={['German', 'French']} most={50} onChange={() => undefined} />
      </div>
      <Head title="Choice" right="with what it does" />
      <div className="pop my-3">
        <ChoiceEditor
          value={person}
          options={[
            { value: 'I', says: 'I', does: 'I salted two jars.' },
            { value: 'we', says: 'we', does: 'We salted two jars.' },
            { value: 'you', says: 'you', does: 'Salt two jars.' },
          ]}
          onChoose={setPerson}
        />
      </div>
    </>
  );
}

function Editors2() {
  const [list, setList] = useState<string[]>(['points', 'table']);
  return (
    <>
      <Head title="List" />
      <div className="pop my-3">
        <ListEditor
          value={list}
          options={['points', 'table', 'chart', 'closing'].map((value) => ({ value, says: value }))}
          onChange={setList}
        />
      </div>
    </>
  );
}

function Marks() {
  return (
    <>
      <Head title="State code" right="four sizes" />
      {STATES.map((state) => (
        <Shown key={state} name={state}>
          <span className="flex items-center gap-4">
            <Mark state={state} size="tiny" />
            <Mark state={state} />
            <Mark state={state} size="slot" />
            <Mark state={state} size="big" />
            <span className="w-24">
              <Mark state={state} size="bar" />
            </span>
          </span>
        </Shown>
      ))}
      <Head title="Ruler" />
      <div className="py-3">
        <Ruler label="in range" value={14} from={0} to={30} least={9} most={22} />
        <Ruler label="out of range" value={27} from={0} to={30} least={9} most={22} />
      </div>
      <Head title="Table row" />
      {['rest', 'picked', 'keyboard'].map((name) => (
        <div
          key={name}
          className={`row grid h-6 grid-cols-[24px_20px_1fr_60px] items-center ${name === 'picked' ? 'picked' : ''} ${name === 'keyboard' ? 'brackets bracketed' : ''}`}
        >
          <Tick label={name} state={name === 'picked'} onChange={() => undefined} />
          <Mark state="done" />
          <span className="work">Why crocks crack</span>
          <span className="text-ink-3">{name}</span>
        </div>
      ))}
      <Head title="Tooltip" right="after 0.4 s" />
      <div className="py-3">
        <Flag says="Beetroot kvass, Kitchen Notes, today 17:00, waits for your proof">
          <button type="button" className="brackets">
            <Mark state="wait" label="waits" />
          </button>
        </Flag>
      </div>
    </>
  );
}

function Said1() {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Head title="Done, in place" right="nothing flies in" />
      <div className="py-3">
        <DoneHere back={{ does: () => undefined }}>6 briefs taken.</DoneHere>
      </div>
      <Head title="Long job" />
      <div className="py-3">
        <LongJob
          title="14 articles into German"
          done={5}
          of={14}
          says="5 of 14, about 9 min left, 0.66 of about 1.54 €"
          onStop={() => undefined}
        />
      </div>
      <Head title="Empty list" />
      <Empty next="Found ones stand here with their article.">No dead links. Looked at 08:00, 212 pages.</Empty>
      <Head title="Loading list" />
      <Loading rows={2} />
      <Head title="Error in a list" />
      <div className="py-2">
        <Trouble actions={<Button look="word">Send it at 1,600 px</Button>}>
          The blog refused the picture, 413: it is 9 MB.
        </Trouble>
      </div>
      <Head title="Confirm" />
      <div className="py-3">
        <Button onClick={() => setAsking(true)}>Ask</Button>
        <Confirm
          open={asking}
          onOpen={setAsking}
          title="This will take 14 articles off the blog."
          says="23 links to them go from 9 others. The texts are kept here for 30 days."
          does="Take 14 off"
          onDo={() => undefined}
        />
      </div>
      <Head title="Drag ghost" right="and where it lands" />
      <p className="py-3">
        <span className="hl hl-full mr-3 ml-1 font-semibold">How full to fill a crock</span> lands Thu 28 Nov 09:00
      </p>
    </>
  );
}

function Said2() {
  return (
    <>
      <Head title="Keys" />
      <p className="py-3">
        <Key>J</Key> <Key>K</Key> <Key>Enter</Key> <Key>Esc</Key>
      </p>
    </>
  );
}

function Column({ children }: { children: ReactNode }) {
  return <div className="border-l border-rule px-4 first:border-l-0 first:pl-8 last:pr-8">{children}</div>;
}

function Shown({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[72px_1fr] py-1">
      <span className="text-small leading-5 text-ink-3">{name}</span>
      <span>{children}</span>
    </div>
  );
}
