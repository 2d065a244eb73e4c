/** What may happen to something: from which states each event can come, and what it is after it. */
export type Events<S extends string, E extends string> = { readonly [Name in E]: { from: readonly S[]; to: S } };

/** What an event makes of a state; null when it cannot happen there. */
export function decide<S extends string, E extends string>(events: Events<S, E>, state: S, event: E): S | null {
  const { from, to } = events[event];
  return from.includes(state) ? to : null;
}

/** Whether any event leads from one state to another. */
export function mayBecome<S extends string, E extends string>(events: Events<S, E>, from: S, to: S): boolean {
  return Object.values<Events<S, E>[E]>(events).some((event) => event.to === to && event.from.includes(from));
}

/** Every pair of states an event leads from and to, staying the same left out. */
export function waysOf<S extends string, E extends string>(events: Events<S, E>): [S, S][] {
  const all = Object.values<Events<S, E>[E]>(events).flatMap(({ from, to }) =>
    from.filter((state) => state !== to).map((state): [S, S] => [state, to]),
  );
  return [...new Map(all.map((way) => [way.join(' > '), way])).values()];
}
