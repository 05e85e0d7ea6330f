export * from './pack.ts';
export * from './checkPack.ts';
export * from './readDateCode.ts';
export * from './parsePatternNumber.ts';
