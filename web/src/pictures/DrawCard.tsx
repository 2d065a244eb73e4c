import { ArticleCards, Picture } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { Button, Trouble } from '../design/index.ts';
import { picturesChanged } from './usePictures.ts';

/** The cards that can be drawn with the title of an article, each by one press; it costs nothing. */
export function DrawCard({ article, onPick }: { article: string; onPick: (picture: Picture) => void }) {
  const list = useQuery({
    queryKey: ['article cards', article],
    queryFn: () => call('GET', `/articles/${article}/cards`, { answer: ArticleCards }),
  });
  const draw = useMutation({
    mutationFn: (card: string) => call('POST', `/articles/${article}/card`, { body: { card }, answer: Picture }),
    onSuccess: (picture) => {
      void picturesChanged();
      onPick(picture);
    },
  });
  if (!list.data) return null;
  const cards = list.data.cards.length > 0 ? list.data.cards : [''];
  return (
    <>
      <p className="flex flex-wrap gap-x-4 pt-2">
        <span className="text-ink-3">Draw a card with its title</span>
        {cards.map((name) => (
          <Button
            key={name}
            look="quiet"
            busy={draw.isPending && draw.variables === name ? 'Drawing' : null}
            onClick={() => draw.mutate(name)}
          >
            {name === '' ? 'a plain one' : `‘${name}’`}
          </Button>
        ))}
      </p>
      {draw.isError ? <Trouble>{inWords(draw.error)}</Trouble> : null}
    </>
  );
}
