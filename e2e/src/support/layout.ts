/** What a page must hold at any width: nothing wider than the window, nothing cut off, words and targets of a size. */
import type { Browser } from './browser.ts';

export interface Layout {
  /** CSS pixels by which the page is wider than the window */
  readonly tooWide: number;
  /** text below the least lettering; drawn stamps are pictures to scale and have their captions */
  readonly smallWords: readonly string[];
  /** what is pressed or typed into and is lower or narrower than a target may be */
  readonly smallTargets: readonly string[];
  /** words cut off without a sign of it */
  readonly cutOff: readonly string[];
}

/** px */
const LEAST_LETTERING = 11;

const MEASURE = `
  const [lettering, target, within] = arguments;
  const told = (e) => e.tagName.toLowerCase() + ' ' + (e.className.baseVal ?? e.className) + ' “' + (e.getAttribute('aria-label') ?? e.textContent).trim().slice(0, 40) + '”';
  const seen = (e) => {
    const { width, height } = e.getBoundingClientRect();
    return width > 1 && height > 1 && getComputedStyle(e).visibility !== 'hidden' && !e.closest('[aria-hidden=true]');
  };
  const smallWords = [], smallTargets = [], cutOff = [];
  for (const e of document.querySelectorAll(within + ' *')) {
    const isText = e.tagName === 'text';
    if ((e.closest('svg') && !isText) || e.matches('.letters') || !seen(e)) continue;
    const style = getComputedStyle(e);
    if ([...e.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent.trim() !== '')) {
      const scale = isText ? Math.hypot(e.getScreenCTM().a, e.getScreenCTM().b) : 1;
      if (parseFloat(style.fontSize) * scale < lettering - 0.05) smallWords.push(told(e));
      if (/hidden|clip/.test(style.overflowX) && style.textOverflow !== 'ellipsis' && e.scrollWidth > e.clientWidth + 1)
        cutOff.push(told(e));
    }
    const inText = e.matches('a') && style.display === 'inline';
    if (e.matches('button, a, summary, textarea, [role=combobox], input:not([type=checkbox], [type=radio], [type=file])') && !inText) {
      const { width, height } = e.getBoundingClientRect();
      if (Math.min(width, height) < target - 0.5) smallTargets.push(Math.round(width) + ' × ' + Math.round(height) + ' ' + told(e));
    }
  }
  return { tooWide: document.documentElement.scrollWidth - innerWidth, smallWords, smallTargets, cutOff };
`;

/**
 * @param target px, the least edge of what is touched; 0 where a mouse points
 * @param within the part of the page that is looked at, as CSS
 */
export const layoutOf = (browser: Browser, target: number, within = '#root'): Promise<Layout> =>
  browser.driver.executeScript<Layout>(MEASURE, LEAST_LETTERING, target, within);
