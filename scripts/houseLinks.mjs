// What the demonstration links by rule and keeps for linking: products of its partner, pages of its own, a site it trusts.

/** Words the shop is paid for, with the product of the partner each leads to; the last one is sold no more. */
const WORDS = [
  { words: 'glass weight', product: 'Glass weights', most: 1 },
  { words: 'airlock lid', product: 'Valve lid', most: 1 },
  { words: 'crock', product: 'Straight crock, 8', most: 2, placing: 'spread', after: 60 },
  { words: 'scale', product: 'Scale to a tenth', most: 1 },
  { words: 'pH strip', product: 'Strips for pH', most: 1 },
  { words: 'cellar', product: null, most: 1 },
];

export async function houseLinks(call, standIns, { journal, kitchen }) {
  const shop = `${standIns}/partner/northquay`;
  const { products } = await (await fetch(`${shop}/list.json`)).json();
  for (const { words, product, most, placing = 'first', after = 0 } of WORDS) {
    const found = product && products.find(({ title }) => title.startsWith(product));
    const address = `${found?.link ?? `${shop}/NQ-0404`}?partner=crockhaven-7`;
    await call('POST', '/link-rules', {
      blog: null,
      words,
      address,
      most,
      placing,
      after,
      forms: true,
      anyCase: true,
      sponsored: true,
    });
  }
  for (const [blog, kind, address, goodFor] of [
    [journal, 'own', `${standIns}/blogs/journal/`, 'questions at the bench'],
    [kitchen, 'own', `${standIns}/blogs/journal/`, 'guides to every crock'],
    [
      journal,
      'outside',
      `${standIns}/pages/cellar-notes/salt-by-weight`,
      'salt by weight, table salt, level tablespoon',
    ],
  ])
    await call('POST', '/kept-addresses', { blog, kind, address, goodFor });
}
