import type { Page } from '@playwright/test';

/** A laboratory computer at 400 % zoom, phone, tablet upright and lying, laboratory computer, desk. */
export const WIDTHS = [
  [320, 640],
  [390, 844],
  [768, 1024],
  [1024, 768],
  [1280, 800],
  [1920, 1080],
] as const;

/** What does not fit: sideways scrolling, text that is cut off, controls that overlap. Marked parts scroll on purpose. */
export async function misfits(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    const root = document.documentElement;
    if (root.scrollWidth > window.innerWidth) {
      const wide = [...document.querySelectorAll('main *, header *')].filter(
        (one) => one.getBoundingClientRect().right > window.innerWidth + 1,
      );
      const worst = wide.slice(0, 3).map((one) => one.className || one.tagName);
      found.push(`scrolls sideways to ${String(root.scrollWidth)}: ${worst.join(' | ')}`);
    }
    const isMarked = (one: Element): boolean => one.closest('[data-cut]') !== null;
    const isShown = (one: Element): boolean => {
      const { width, height } = one.getBoundingClientRect();
      // What is for screen readers only is a dot of one pixel.
      return width > 1 && height > 1 && one.checkVisibility({ visibilityProperty: true });
    };
    for (const one of document.querySelectorAll('body *')) {
      const hasText = [...one.childNodes].some(
        (child) => child.nodeType === Node.TEXT_NODE && child.textContent?.trim() !== '',
      );
      const { overflowX } = getComputedStyle(one);
      if (!hasText || overflowX === 'visible' || isMarked(one) || !isShown(one)) continue;
      if (one.scrollWidth > one.clientWidth + 1) found.push(`cut off: ${one.textContent}`);
    }
    const stays = (one: Element): Element | null => {
      for (let at: Element | null = one; at; at = at.parentElement) {
        if (['sticky', 'fixed'].includes(getComputedStyle(at).position)) return at;
      }
      return null;
    };
    const controls = [
      ...document.querySelectorAll('a[href], button, input, select, textarea, summary'),
    ].filter(
      // What is there for a browser's own filling-in alone is hidden from everybody.
      (one) => isShown(one) && !isMarked(one) && one.closest('[aria-hidden="true"]') === null,
    );
    /** What is seen of a control inside of what scrolls around it. */
    const boxOf = (one: Element) => {
      const { left, right, top, bottom } = one.getBoundingClientRect();
      const box = { left, right, top, bottom };
      for (let at = one.parentElement; at; at = at.parentElement) {
        if (getComputedStyle(at).overflowY === 'visible') continue;
        const around = at.getBoundingClientRect();
        box.top = Math.max(box.top, around.top);
        box.bottom = Math.min(box.bottom, around.bottom);
      }
      return box;
    };
    // Where fingers do the work; a link or a word that explains itself, in the middle of a sentence, is as high as its line.
    for (const one of window.innerWidth < 1024 ? controls : []) {
      const isInSentence =
        (one.tagName === 'A' && getComputedStyle(one).display === 'inline') ||
        one.matches('[data-term]');
      // The whole line of a box to be ticked can be hit.
      const isTicked = one.matches('[type=checkbox], [type=radio]');
      const height = Math.round(one.getBoundingClientRect().height);
      if (height < 48 && !isInSentence && !isTicked) {
        found.push(`only ${String(height)} px high: ${one.textContent.trim() || one.tagName}`);
      }
    }
    const boxes = controls.map((one) => [one, boxOf(one)] as const);
    for (const [i, [one, a]] of boxes.entries()) {
      for (const [other, b] of boxes.slice(i + 1)) {
        if (one.contains(other) || other.contains(one)) continue;
        // What scrolls is covered by what stays.
        if (stays(one) !== stays(other)) continue;
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
        if (across > 2 && down > 2) {
          const names = [one, other].map((each) => each.textContent.trim() || each.tagName);
          found.push(`overlap: ${names.join(' / ')}`);
        }
      }
    }
    return found;
  });
}
