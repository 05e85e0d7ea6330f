/** Filling in the authoring forms by their labels, inside the rows they stand in. */
import { By, error, Key, type WebElement } from 'selenium-webdriver';
import { PATIENCE_MS, type Browser } from './browser.ts';

const FIND = `
  const [path, label] = arguments;
  let scope = document;
  for (const name of path) {
    scope = [...scope.querySelectorAll('[role=group]')].find((g) => g.getAttribute('aria-label') === name);
    if (!scope) return null;
  }
  const own = [...scope.querySelectorAll('label')].find((l) => l.textContent.trim() === label);
  return own ? document.getElementById(own.htmlFor) : null;
`;

/** @param path aria-labels of the rows from the outside in, such as ['Rules 2'] */
async function control(browser: Browser, path: readonly string[], label: string): Promise<WebElement> {
  return browser.driver.wait(
    async () => browser.driver.executeScript<WebElement | null>(FIND, path, label),
    PATIENCE_MS,
    `there is no field “${label}” in ${path.join(' › ') || 'the form'}`,
  ) as Promise<WebElement>;
}

/** Types into a field, presses a chip, or chooses from a list, whichever the label belongs to. */
export async function fill(
  browser: Browser,
  label: string,
  text: string,
  path: readonly string[] = [],
): Promise<void> {
  await browser.driver.wait(
    async () => {
      try {
        const field = await control(browser, path, label);
        const role = await field.getAttribute('role');
        if (role === 'combobox') {
          await field.click();
          await browser.pick(text);
        } else if (role === 'group')
          await field.findElement(By.xpath(`./button[normalize-space(.)="${text}"]`)).click();
        else await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text);
        return true;
      } catch (problem) {
        // a form that is drawn anew when its row arrives: find the field again
        if (problem instanceof error.StaleElementReferenceError) return false;
        throw problem;
      }
    },
    PATIENCE_MS,
    `“${label}” cannot be filled in`,
  );
}

/** What is told below a field. */
export async function told(browser: Browser, label: string, path: readonly string[] = []): Promise<string> {
  const field = await control(browser, path, label);
  const id = await field.getAttribute('aria-describedby');
  return browser.driver.executeScript<string>(
    'return document.getElementById(arguments[0])?.textContent ?? ""',
    id,
  );
}

/** A new thing of a kind, filled in and saved. */
export async function write(
  browser: Browser,
  address: string,
  section: string,
  fields: readonly (readonly [string, string, ...string[]])[],
): Promise<void> {
  await browser.driver.get(`${address}/reference/write/${section}`);
  await browser.settled();
  for (const [label, text, ...path] of fields)
    if (label.startsWith('+ ')) await add(browser, label, path);
    else await fill(browser, label, text, path);
  await save(browser);
}

/** Adds a row: the button “+ read”, “+ rule”, inside the rows of the path. */
export async function add(browser: Browser, words: string, path: readonly string[]): Promise<void> {
  const scope = path.map((name) => `//*[@role='group'][@aria-label="${name}"]`).join('');
  await browser.clickAt(`${scope || ''}//button[normalize-space(.)="${words}"]`);
}

export async function save(browser: Browser): Promise<void> {
  await browser.click('button', 'Save');
  await browser.says('Saved');
}
