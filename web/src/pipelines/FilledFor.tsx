import { Filled } from '@grivo/contract';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { createContext, useContext } from 'react';
import { call } from '../api/call.ts';
import { useSettled } from '../design/useSettled.ts';

/** The trial texts are shown filled for. */
export const FillingTrial = createContext<{ brief: string; subject: string } | null>(null);

/** What fields hold in the item beside the procedure, each as it begins: shown while one is chosen. */
export const FieldExamples = createContext<Readonly<Record<string, string>>>({});

/** A text with fields as it would be said for the subject of the trial, beside the text itself. */
export function FilledFor({ step, text }: { step: string; text: string }) {
  const trial = useContext(FillingTrial);
  const asked = useSettled(text, 250);
  const { data } = useQuery({
    queryKey: ['brief', trial?.brief, 'fill', step, asked],
    queryFn: () => call('POST', `/briefs/${trial?.brief}/fill`, { body: { step, text: asked }, answer: Filled }),
    enabled: trial !== null && asked.includes('{{'),
    placeholderData: keepPreviousData,
  });
  // What is wrong with the text is said at the text.
  if (!trial || !asked.includes('{{') || !data || data.problem !== null) return null;
  return (
    <div className="mt-2 max-w-[26rem] border-t border-rule pt-2 text-small">
      <p className="text-ink-3">For ‘{trial.subject}’ it says:</p>
      <p className="max-h-32 overflow-auto break-words whitespace-pre-wrap" tabIndex={0}>
        {data.text}
      </p>
    </div>
  );
}
