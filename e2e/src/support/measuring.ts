/** The steps of measuring a blade on the demo's photograph of it: as the test does it, and as it is shown. */
import { By } from 'selenium-webdriver';
import type { Browser } from './browser.ts';

/** The photograph and the drawn rule on it, in the picture's own pixels. */
const PICTURE = { width: 1500, height: 1100 };
const RULE = { left: 150, y: 1000, length: 1150 };

/**
 * From the condition of a piece whose blade lies on the board, to what the outline says it has lost.
 * @param ruleMm how long the rule beside it is
 */
export async function measureBlade(browser: Browser, ruleMm: number): Promise<void> {
  await browser.click('button', 'Measure from a picture');
  await browser.click('button', 'Blade on the board');
  await browser.says('Click one mark of the rule.');
  const picture = await browser.driver.findElement(By.css('.surface.measured svg'));
  await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "end" })', picture);
  const box = await picture.getRect();
  for (const mm of [0, 100])
    await browser.driver
      .actions()
      .move({
        origin: picture,
        x: Math.round(((RULE.left + (mm * RULE.length) / ruleMm) / PICTURE.width - 0.5) * box.width),
        y: Math.round((RULE.y / PICTURE.height - 0.5) * box.height),
      })
      .click()
      .perform();
  await browser.type('Between, mm', '100');
  await browser.says('A pixel is');
  await browser.click('button', 'Find the outline');
  await browser.says('Height at ten stations');
  await browser.click('button', 'Lay it on the outline');
  await browser.says('% lost');
}
