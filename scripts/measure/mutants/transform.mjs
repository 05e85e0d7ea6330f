/** Puts the fault that is tried into its file while a test reads it; nothing on the disk is touched. */
import swc from '@swc/jest';

/** @type {{ file: string, start: number, end: number, text: string } | undefined} */
const fault = process.env.JUTBANK_FAULT === undefined ? undefined : JSON.parse(process.env.JUTBANK_FAULT);

export default {
  /** @param {import('@swc/core').Options} options */
  createTransformer(options) {
    const inner = swc.createTransformer(/** @type {never} */ (options));
    /** @param {string} source @param {string} path */
    const faulty = (source, path) =>
      fault && path.endsWith(`/${fault.file}`)
        ? source.slice(0, fault.start) + fault.text + source.slice(fault.end)
        : source;
    return {
      ...inner,
      /** @param {string} source @param {string} path @param {never} rest */
      getCacheKey: (source, path, rest) => `${inner.getCacheKey?.(faulty(source, path), path, rest)}`,
      /** @param {string} source @param {string} path @param {never} rest */
      process: (source, path, rest) => inner.process?.(faulty(source, path), path, rest),
      /** @param {string} source @param {string} path @param {never} rest */
      processAsync: (source, path, rest) => inner.processAsync?.(faulty(source, path), path, rest),
    };
  },
};
