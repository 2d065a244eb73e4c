import { useEffect } from 'react';

/** Faces of scripts the reading face does not have, fetched once an article is shown that is written in one. */
const FACES: Record<string, () => Promise<unknown>> = {
  Arab: () =>
    Promise.all([import('@fontsource/noto-naskh-arabic/400.css'), import('@fontsource/noto-naskh-arabic/700.css')]),
  Hebr: () =>
    Promise.all([import('@fontsource/noto-serif-hebrew/400.css'), import('@fontsource/noto-serif-hebrew/700.css')]),
  Jpan: () => Promise.all([import('@fontsource/noto-serif-jp/400.css'), import('@fontsource/noto-serif-jp/700.css')]),
};

/** The script a language is written in, as ISO 15924 names it; null where that is not known. */
export function scriptOf(language: string): string | null {
  try {
    return new Intl.Locale(language).maximize().script ?? null;
  } catch {
    return null;
  }
}

/** Sees to it that a language can be read in a face of ours. */
export function useFaces(language: string): void {
  useEffect(() => {
    // Without it the platform's own face shows the text.
    void FACES[scriptOf(language) ?? '']?.().catch(() => undefined);
  }, [language]);
}
