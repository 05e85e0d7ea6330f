export {
  type FairAnswer,
  type FairNote,
  type FairNoteRecord,
  type FairQuestion,
  fairNote,
  fairRoutes,
} from './fair.ts';
