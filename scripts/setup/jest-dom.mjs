/** A page without a browser, for tests of single screens: jsdom, with what it lacks of a browser taken from the runtime. */
import { TestEnvironment } from 'jest-environment-jsdom';

export default class ScreenEnvironment extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    Object.assign(this.global, {
      TextEncoder,
      TextDecoder,
      structuredClone,
      Blob,
      File,
      FormData,
      Request,
      Response,
      Headers,
    });
    Object.defineProperty(this.global, 'crypto', { value: globalThis.crypto });
  }

  // packages that ship a build for browsers beside one for Node are wanted in the latter
  exportConditions() {
    return ['node', 'node-addons'];
  }
}
