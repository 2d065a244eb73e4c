// A procedure with everything that can branch, hold and share: what breaks in a straight line breaks here too, and more.

/** @returns the procedure, and how many articles a brief of it makes */
export function wide(source, blog) {
  return {
    // The main one, one of the branch, one of each turn.
    articles: 4,
    document: {
      grivo: 1,
      language: 'en',
      steps: [
        { id: 's1', kind: 'take', sources: [source], most: null, everyMinutes: null, atOnce: null, apartMinutes: 0 },
        { id: 's2', kind: 'look up', pages: 4, country: null, since: null },
        {
          id: 'j1',
          kind: 'judge',
          of: 'the sources',
          qualities: 'substance and figures',
          least: 1,
          otherwise: 'go on all the same',
          instruction: '',
        },
        { id: 's3', kind: 'outline', sections: { from: 2, to: 3 } },
        { id: 's4', kind: 'write', words: 300, person: 'second person', tone: 'plain', parts: [] },
        { id: 's5', kind: 'title', most: 60, choices: 2, hold: true },
        {
          id: 'm1',
          kind: 'meanwhile',
          name: 'short',
          ifStopped: 'wait for it',
          steps: [
            {
              id: 'v1',
              kind: 'vary',
              variants: ['{In short|Briefly}: {{ subject }}'],
              for: 'the title',
              as: 'variant',
            },
            { id: 'v2', kind: 'publish', blog, when: 'at once', as: 'draft' },
          ],
        },
        {
          id: 'w1',
          kind: 'when',
          join: 'all',
          tests: [{ field: 'judgement.score', is: 'above', value: '5' }],
          holds: [{ id: 'i1', kind: 'illustrate', lead: 'drawn', manner: 'flat shapes' }],
          otherwise: [{ id: 'o1', kind: 'work out', as: 'poor', expression: 'judgement.reason' }],
        },
        { id: 's9', kind: 'publish', blog, when: 'at once', as: 'live' },
        {
          id: 'e1',
          kind: 'for each',
          values: ['German', 'French'],
          from: '',
          as: 'tongue',
          name: 'versions',
          steps: [
            { id: 't1', kind: 'translate', into: '{{ tongue }}' },
            { id: 't2', kind: 'publish', blog, when: 'at once', as: 'draft' },
          ],
        },
      ],
    },
  };
}
