export {
  type FairAnswer,
  type FairBagDocument,
  type FairNote,
  type FairNoteRecord,
  type FairQuestion,
  fairNote,
  fairRoutes,
} from './fair.ts';
