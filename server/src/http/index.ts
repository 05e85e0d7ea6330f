export * from './problem.ts';
export * from './mount.ts';
export * from './page.ts';
export * from './upload.ts';
