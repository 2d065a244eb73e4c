import type { CardDocument } from '@grivo/core';

/** A name no other card has. */
export function freeName(cards: readonly CardDocument[], name: string): string {
  const taken = new Set(cards.map((card) => card.name));
  if (!taken.has(name)) return name;
  for (let n = 2; ; n++) if (!taken.has(`${name} ${n}`)) return `${name} ${n}`;
}
