/** The longest task of the page while something is done, in milliseconds (Long Tasks: nothing under 50 is reported). */
export async function longest(page, act) {
  await page.evaluate(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) window.longest = Math.max(window.longest, entry.duration);
    }).observe({ type: 'longtask' });
  });
  await act();
  return page.evaluate(() => window.longest);
}
