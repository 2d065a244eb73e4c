import { type CutPicture as Cut, KEEPS, Picture, RATIOS } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { Button, ChoiceWord, Trouble } from '../design/index.ts';
import { picturesChanged } from './usePictures.ts';

const SIDES: Record<Cut['ratio'], string> = {
  '16:9': 'as wide as a film',
  '3:2': 'as a photograph',
  '4:3': 'a little wider than high',
  '1:1': 'as wide as high',
};

/** Cuts a picture to other sides; what comes of it takes its place where it stands. */
export function CutPicture({ file, onCut }: { file: string; onCut: (picture: Picture) => void }) {
  const [ratio, setRatio] = useState<Cut['ratio']>('16:9');
  const [keep, setKeep] = useState<Cut['keep']>('the middle');
  const cut = useMutation({
    mutationFn: () => call('POST', `/pictures/${file}/cut`, { body: { ratio, keep }, answer: Picture }),
    onSuccess: (picture) => {
      onCut(picture);
      return picturesChanged();
    },
  });
  return (
    <p className="flex flex-wrap items-baseline gap-x-2 text-small">
      <span>
        Cut to{' '}
        <ChoiceWord
          label="Sides"
          value={ratio}
          options={RATIOS.map((value) => ({ value, says: value, does: SIDES[value] }))}
          onChoose={setRatio}
        />{' '}
        it keeps{' '}
        <ChoiceWord
          label="What stays"
          value={keep}
          options={KEEPS.map((value) => ({ value, says: value, does: '' }))}
          onChoose={setKeep}
        />
        .
      </span>
      <Button look="quiet" anyone busy={cut.isPending ? 'Cutting' : null} onClick={() => cut.mutate()}>
        Cut it
      </Button>
      {cut.isError ? <Trouble>{inWords(cut.error)}</Trouble> : null}
    </p>
  );
}
