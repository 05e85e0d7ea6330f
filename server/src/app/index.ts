export { createApp, type App } from './createApp.ts';
