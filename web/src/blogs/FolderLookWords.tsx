import type { FolderLook } from '@grivo/contract';
import { contrastOf } from '@grivo/core';
import { ColourWord, TextWord, Trouble } from '../design/index.ts';

/** What letters and links need to stand out from the ground (Web Content Accessibility Guidelines 2.2, 1.4.3). */
const LEAST_CONTRAST = 4.5;

/** How the pages of a folder look, as words; all pages follow at once. */
export function FolderLookWords({ look, onPut }: { look: FolderLook; onPut: (look: FolderLook) => void }) {
  const colour = (label: string, name: 'ground' | 'letters' | 'links') => (
    <ColourWord label={label} value={look[name]} onChange={(value) => onPut({ ...look, [name]: value })} />
  );
  const faint = (['letters', 'links'] as const).filter((name) => contrastOf(look[name], look.ground) < LEAST_CONTRAST);
  return (
    <span className="block pt-2">
      Pages have letters in {colour('Colour of letters', 'letters')} on {colour('Colour of the ground', 'ground')},
      links in {colour('Colour of links', 'links')}, and{' '}
      <TextWord
        label="Logo"
        value={look.logo}
        hint="The path of a picture in the folder, such as pictures/logo.svg. Leave it empty for none."
        onPut={(logo) => onPut({ ...look, logo: logo.trim() })}
      >
        {look.logo === '' ? 'no logo' : look.logo}
      </TextWord>{' '}
      before the name.
      {faint.map((name) => (
        <Trouble key={name}>
          The {name} are hard to read on this ground: they stand out {contrastOf(look[name], look.ground).toFixed(1)} to
          1, and readers need {LEAST_CONTRAST} to 1. Choose a darker or lighter one.
        </Trouble>
      ))}
    </span>
  );
}
