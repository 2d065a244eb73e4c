import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Marks and names of the band and of charts stand again as rows in a list opened on the same screen. */
const AGAIN_IN_A_LIST = ['[aria-label="The next seven days"]', '[data-chart]'];

/**
 * Serious faults of access on a page as it is: the rule, and the first elements it finds. Looked at within the page itself:
 * none has frames of its own, and a second page for the sums of frames took half of the time.
 */
export async function faultsOf(page: Page): Promise<string[]> {
  const all = await new AxeBuilder({ page })
    .setLegacyMode()
    .disableRules(['target-size'])
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  const targets = await AGAIN_IN_A_LIST.reduce(
    (axe, selector) => axe.exclude(selector),
    new AxeBuilder({ page }).setLegacyMode().withRules(['target-size', 'label-content-name-mismatch']),
  ).analyze();
  return [...all.violations, ...targets.violations]
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(
      ({ id, nodes }) =>
        `${id} ${nodes
          .slice(0, 8)
          .map((node) => node.html.slice(0, 160))
          .join(' | ')}`,
    );
}
