/** A real headless Chromium, at an exact size, whose console and failed requests are kept. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, error, Key, logging, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

export interface Size {
  readonly width: number;
  readonly height: number;
}
export const PATIENCE_MS = 15_000;

const FIND_CHOICE = `
  const words = (box) => (box.getAttribute('aria-label')
    ?? document.getElementById((box.getAttribute('aria-labelledby') ?? '').split(' ')[0])?.textContent ?? '');
  return [...document.querySelectorAll('[role=combobox]')].find((box) => words(box).startsWith(arguments[0])) ?? null;
`;

export class Browser {
  constructor(
    readonly driver: WebDriver,
    readonly downloads: string,
    readonly profile: string,
  ) {}

  async resize({ width, height }: Size): Promise<void> {
    await (this.driver as unknown as chrome.Driver).sendDevToolsCommand(
      'Emulation.setDeviceMetricsOverride',
      { width, height, deviceScaleFactor: 1, mobile: false },
    );
  }

  /** Waits until nothing is loading: fonts in, no request under way, no busy line. */
  async settled(): Promise<void> {
    await this.driver.wait(
      async () =>
        this.driver.executeScript<boolean>(
          "return document.readyState === 'complete' && document.fonts.status === 'loaded' && !document.querySelector('.busy') && document.querySelector('#root').children.length > 0 && [...document.images].every((i) => i.complete || i.loading === 'lazy')",
        ),
      PATIENCE_MS,
      'the page did not settle',
    );
    await this.driver.executeAsyncScript(
      'const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(done))',
    );
  }

  find(css: string): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.css(css)), PATIENCE_MS, `there is no ${css}`);
  }

  /** The first visible element of a kind whose text or label holds these words. */
  async named(kind: 'button' | 'link' | 'any', words: string): Promise<WebElement> {
    const tags = kind === 'button' ? 'button' : kind === 'link' ? 'a' : '*';
    const xpath = `//${tags}[contains(normalize-space(.), ${quoted(words)}) or @aria-label=${quoted(words)}]`;
    return this.driver.wait(
      async () => {
        const found = await this.driver.findElements(By.xpath(xpath));
        for (const element of found.reverse())
          if (await element.isDisplayed().catch(() => false)) return element;
        return null;
      },
      PATIENCE_MS,
      `there is no ${kind} “${words}”`,
    ) as Promise<WebElement>;
  }

  async click(kind: 'button' | 'link', words: string): Promise<void> {
    await this.#press(() => this.named(kind, words), words);
  }

  async clickAt(xpath: string): Promise<void> {
    await this.#press(async () => this.driver.findElement(By.xpath(xpath)), xpath);
  }

  /** A page that answers while one types may draw an element anew between finding and clicking it: find it again. */
  async #press(find: () => Promise<WebElement>, what: string): Promise<void> {
    await this.driver.wait(
      async () => {
        try {
          const element = await find();
          if (!(await element.isEnabled())) return false;
          await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
          await element.click();
          return true;
        } catch (problem) {
          if (
            problem instanceof error.StaleElementReferenceError ||
            problem instanceof error.ElementClickInterceptedError ||
            problem instanceof error.NoSuchElementError
          )
            return false;
          throw problem;
        }
      },
      PATIENCE_MS,
      `“${what}” cannot be pressed`,
    );
  }

  /** The field with this label. */
  async field(label: string): Promise<WebElement> {
    const xpath = `//*[self::input or self::textarea][@aria-label=${quoted(label)} or @id=//label[starts-with(normalize-space(.), ${quoted(label)})]/@for]`;
    return this.driver.wait(
      until.elementLocated(By.xpath(xpath)),
      PATIENCE_MS,
      `there is no field “${label}”`,
    );
  }

  async type(label: string, text: string): Promise<void> {
    await this.driver.wait(
      async () => {
        try {
          const field = await this.field(label);
          await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text);
          return true;
        } catch (problem) {
          // drawn anew between finding and typing: find it again
          if (problem instanceof error.StaleElementReferenceError) return false;
          throw problem;
        }
      },
      PATIENCE_MS,
      `nothing can be typed into “${label}”`,
    );
  }

  /** Chooses from a list, by its label and the words of the option. */
  async choose(label: string, option: string): Promise<void> {
    const box = await (this.driver.wait(
      async () => this.driver.executeScript<WebElement | null>(FIND_CHOICE, label),
      PATIENCE_MS,
      `there is no choice “${label}”`,
    ) as Promise<WebElement>);
    await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', box);
    await box.click();
    await this.pick(option);
  }

  /** Takes an option of the list that is open. */
  async pick(option: string): Promise<void> {
    const item = await this.driver.wait(
      until.elementLocated(By.xpath(`//li[@role='option' and normalize-space(.)=${quoted(option)}]`)),
      PATIENCE_MS,
      `“${option}” cannot be chosen`,
    );
    await item.click();
    await this.driver.wait(
      async () => (await this.driver.findElements(By.css("[role='listbox'] [role='option']"))).length === 0,
      PATIENCE_MS,
    );
  }

  async says(words: string): Promise<void> {
    await this.driver.wait(
      async () => (await this.driver.executeScript<string>('return document.body.innerText')).includes(words),
      PATIENCE_MS,
      `the page does not say “${words}”`,
    );
  }

  async keys(...keys: string[]): Promise<void> {
    for (const key of keys) await this.driver.actions().sendKeys(key).perform();
  }

  async fetchJson<T>(path: string): Promise<T> {
    const text = await this.driver.executeAsyncScript<string>(
      'const done = arguments[1]; fetch(arguments[0]).then((r) => r.text()).then(done)',
      path,
    );
    return JSON.parse(text) as T;
  }

  /** Errors on the console since the last call: scripts, policy violations, failed requests. */
  async complaints(): Promise<string[]> {
    const entries = await this.driver.manage().logs().get(logging.Type.BROWSER);
    return (
      entries
        .filter((e) => e.level.value >= logging.Level.SEVERE.value)
        .map((e) => e.message)
        // nobody is signed in at first: that answer is how the page finds out
        .filter((m) => !/\/api\/v1\/session - Failed to load resource.*401/.test(m))
    );
  }

  async close(): Promise<void> {
    await this.driver.quit();
    rmSync(this.profile, { recursive: true, force: true });
    rmSync(this.downloads, { recursive: true, force: true });
  }
}

const quoted = (text: string): string => (text.includes('"') ? `'${text}'` : `"${text}"`);

export async function openBrowser(size: Size): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), 'jutbank-chromium-'));
  const downloads = mkdtempSync(join(tmpdir(), 'jutbank-downloads-'));
  const options = new chrome.Options();
  options.setBinaryPath('/usr/bin/chromium');
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--force-device-scale-factor=1',
    '--hide-scrollbars',
    '--lang=en-GB',
    `--user-data-dir=${profile}`,
    `--window-size=${size.width},${size.height + 143}`,
    '--blink-settings=primaryPointerType=4,availablePointerTypes=4,primaryHoverType=2,availableHoverTypes=2',
  );
  options.setUserPreferences({
    'download.default_directory': downloads,
    'plugins.always_open_pdf_externally': true,
  });
  const logs = new logging.Preferences();
  logs.setLevel(logging.Type.BROWSER, logging.Level.ALL);
  options.setLoggingPrefs(logs);
  const driver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new chrome.ServiceBuilder('/usr/bin/chromedriver'))
    .build();
  const browser = new Browser(driver, downloads, profile);
  await browser.resize(size);
  return browser;
}

export async function signIn(
  browser: Browser,
  address: string,
  who: { email: string; password: string },
): Promise<void> {
  await browser.driver.get(address);
  await browser.type('E-mail', who.email);
  await browser.type('Password', who.password);
  await browser.click('button', 'Sign in');
  await browser.find('header.head');
  await browser.settled();
}
