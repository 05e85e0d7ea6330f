export * from './claims.ts';
export * from './custody.ts';
export * from './linkedArt.ts';
export * from './trail.ts';
