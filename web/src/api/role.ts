import { useQuery } from '@tanstack/react-query';
import { read } from './queries.ts';

/** Whether who is signed in may change more than texts: proofreaders may not. */
export const useEdits = (): boolean => {
  const role = useQuery(read.session()).data?.role;
  return role !== undefined && role !== 'proofreader';
};
