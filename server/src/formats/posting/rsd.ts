import { childOf, childrenOf, readXml } from '../xml/tree.ts';

/** An interface for desk programs a site describes (Really Simple Discovery 1.0). */
export interface DeskInterface {
  name: string;
  address: string;
  blogId: string;
  preferred: boolean;
}

const MOST = 50;

/** The interfaces in a description, the preferred one first; none when it is no description. */
export function readRsd(text: string): DeskInterface[] {
  const read = readXml(text);
  if (!read.ok || read.root.name !== 'rsd') return [];
  return childrenOf(read.root, 'service')
    .flatMap((service) => childrenOf(childOf(service, 'apis') ?? service, 'api'))
    .slice(0, MOST)
    .map(({ attributes }) => ({
      name: attributes['name'] ?? '',
      address: attributes['apiLink'] ?? '',
      blogId: attributes['blogID'] ?? '',
      preferred: attributes['preferred'] === 'true',
    }))
    .sort((a, b) => Number(b.preferred) - Number(a.preferred));
}
