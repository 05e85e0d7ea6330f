/** A page without a browser, for tests of single screens: jsdom, with what it lacks of a browser taken from the runtime. */
import { TestEnvironment } from 'jest-environment-jsdom';

const OF_A_BROWSER = /** @type {const} */ ([
  'TextEncoder',
  'TextDecoder',
  'structuredClone',
  'Blob',
  'File',
  'FormData',
  'Request',
  'Response',
  'Headers',
]);

export default class ScreenEnvironment extends TestEnvironment {
  /** @override */
  async setup() {
    await super.setup();
    const given = OF_A_BROWSER.map((name) => [name, globalThis[name]]);
    Object.assign(this.global, Object.fromEntries(given));
    Object.defineProperty(this.global, 'crypto', { value: globalThis.crypto });
  }

  /**
   * Packages that ship a build for browsers beside one for Node are wanted in the latter.
   * @override
   */
  exportConditions() {
    return ['node', 'node-addons'];
  }
}
