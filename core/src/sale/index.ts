export * from './net.ts';
