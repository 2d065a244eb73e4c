import { Picture, type PictureWhole } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import {
  Button,
  Confirm,
  Empty,
  Field,
  Head,
  Loading,
  Mark,
  saysOf,
  stateOf,
  TextArea,
  Trouble,
  useMay,
} from '../design/index.ts';
import { count, money } from '../words/figures.ts';
import { addressOf, picturesChanged, picturesRead, sizeInWords } from './usePictures.ts';

const TITLES: Record<Picture['kind'], string> = {
  drawn: 'Drawn',
  still: 'Of a source',
  own: 'Our own',
  library: 'Of a picture library',
  card: 'A card',
  came: 'Came with a text',
};

/** A screen reader reads so much in one go; what is longer belongs into the caption. */
const LONG = 140;

/** One picture: large, what it shows, whose it is, where it is used, and others that look nearly the same. */
export function PictureDetails({ file, choose }: { file: string; choose: (file: string | null) => void }) {
  const whole = useQuery(picturesRead.one(file));
  if (whole.isPending) return <Loading rows={6} />;
  if (!whole.data) return <Trouble>{inWords(whole.error)}</Trouble>;
  const { picture, usedIn, alike } = whole.data;
  return (
    <>
      <Head
        title={TITLES[picture.kind]}
        right={
          <span className="fig">
            {count(picture.width)} × {count(picture.height)}, {sizeInWords(picture.bytes)}
          </span>
        }
      />
      <img src={addressOf(picture)} alt={picture.words} className="max-h-72 w-full bg-wash object-contain" />
      <Words key={picture.rev} picture={picture} />
      <From picture={picture} />
      <UsedIn usedIn={usedIn} />
      {alike.length > 0 ? (
        <div className="pt-4">
          <Head title="Looks nearly the same" right="how much is alike" />
          <ul>
            {alike.map((one) => (
              <li key={one.file} className="flex items-center gap-3 border-b border-rule-soft py-1 text-small">
                <img src={addressOf(one)} alt="" className="h-9 w-14 object-cover" />
                <button type="button" className="act brackets min-w-0 truncate" onClick={() => choose(one.file)}>
                  {one.words || 'no words yet'}
                </button>
                <span className="fig ml-auto">{Math.round(one.share * 100)} %</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <RemovePicture picture={picture} onGone={() => choose(null)} />
    </>
  );
}

/** What is said of it, kept together. */
function Words({ picture }: { picture: Picture }) {
  const [words, setWords] = useState(picture.words);
  const [credit, setCredit] = useState(picture.credit);
  const may = useMay();
  const keep = useMutation({
    mutationFn: () =>
      call('PATCH', `/pictures/${picture.file}`, { body: { words, credit }, rev: picture.rev, answer: Picture }),
    onSettled: picturesChanged,
  });
  const same = words.trim() === picture.words && credit.trim() === picture.credit;
  return (
    <form
      className="flex flex-col gap-2 pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (!same) keep.mutate();
      }}
    >
      <TextArea
        label="What is seen"
        rows={2}
        maxLength={500}
        readOnly={!may}
        value={words}
        hint={
          words.length > LONG
            ? `${words.length} letters; over ${LONG} belong into a caption.`
            : 'Said to those who do not see it, and what it is found and chosen by. Articles that have it keep their own words.'
        }
        onChange={(event) => setWords(event.target.value)}
      />
      <Field
        label="Credit, shown with it"
        maxLength={300}
        readOnly={!may}
        value={credit}
        onChange={(event) => setCredit(event.target.value)}
      />
      {may ? (
        <div>
          <Button look="line" type="submit" disabled={same} busy={keep.isPending ? 'Keeping' : null}>
            Keep the words
          </Button>
        </div>
      ) : null}
      {keep.isError ? <Trouble>{inWords(keep.error)}</Trouble> : null}
    </form>
  );
}

function From({ picture: { kind, origin, cost } }: { picture: Picture }) {
  if (origin === '' && cost === 0) return null;
  const isAddress = /^https?:/.test(origin);
  return (
    <div className="pt-4">
      <Head title="Where it is from" right={cost > 0 ? money(cost) : 'at no cost'} />
      <p className="truncate pt-2 text-small">
        {kind === 'drawn' ? 'drawn by ' : ''}
        {isAddress ? (
          <a className="act brackets" href={origin} target="_blank" rel="noreferrer">
            {origin.replace(/^https?:\/\//, '')}
          </a>
        ) : (
          origin
        )}
      </p>
    </div>
  );
}

function UsedIn({ usedIn }: { usedIn: PictureWhole['usedIn'] }) {
  return (
    <div className="pt-4">
      <Head title={usedIn.length === 0 ? 'Used nowhere' : `Used in ${count(usedIn.length)}`} />
      {usedIn.length === 0 ? <Empty>No article has it now.</Empty> : null}
      <ul>
        {usedIn.map(({ article, title, standing, isLead }) => (
          <li key={article} className="flex min-h-7 items-center gap-2 border-b border-rule-soft">
            <Mark state={stateOf(standing)} label={saysOf(standing)} />
            <Link to={`/articles/${article}`} className="work brackets truncate">
              {title}
            </Link>
            <span className="ml-auto text-small whitespace-nowrap text-ink-3">
              {isLead ? 'at its head' : 'in its text'}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

function RemovePicture({ picture, onGone }: { picture: Picture; onGone: () => void }) {
  const [asking, setAsking] = useState(false);
  const may = useMay();
  const remove = useMutation({
    mutationFn: () => call('DELETE', `/pictures/${picture.file}`),
    onSuccess: () => {
      onGone();
      return picturesChanged();
    },
  });
  if (!may) return null;
  return (
    <p className="pt-4 text-small">
      {picture.uses > 0 ? (
        <span className="text-ink-3">It stays in the library while an article has it.</span>
      ) : (
        <button type="button" className="act quiet brackets" onClick={() => setAsking(true)}>
          Take it out of the library
        </button>
      )}
      {remove.isError ? <Trouble>{inWords(remove.error)}</Trouble> : null}
      <Confirm
        open={asking}
        onOpen={setAsking}
        title="Take this picture out?"
        says="No article has it. Revisions of before that had it keep it; it is not offered any more."
        does="Take it out"
        onDo={() => remove.mutate()}
      />
    </p>
  );
}
