export * from './claims.ts';
export * from './linkedArt.ts';
export * from './trail.ts';
