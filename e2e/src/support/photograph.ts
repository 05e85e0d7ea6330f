/** A photograph as a phone would take one, given to the page that asks for it. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import sharp from 'sharp';
import type { Browser } from './browser.ts';

export async function photographTable(browser: Browser): Promise<void> {
  const photo = join(browser.downloads, 'table.png');
  writeFileSync(
    photo,
    await sharp({ create: { width: 640, height: 480, channels: 3, background: '#b9a27c' } })
      .png()
      .toBuffer(),
  );
  await browser.driver.findElement(By.css("input[aria-label='Photograph it']")).sendKeys(photo);
}
