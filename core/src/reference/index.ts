export * from './pack.ts';
export * from './checkPack.ts';
export * from './readDateCode.ts';
export * from './parsePatternNumber.ts';
export * from './codeTable.ts';
export * from './differences.ts';
export * from './scarcity.ts';
export * from './readSerial.ts';
