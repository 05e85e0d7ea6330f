/** The bag's answers, reckoned beside the screen: the reference is compiled here and never crosses over. */
import { expose } from 'comlink';
import { FairTable, isBag } from '@jutbank/core/fair';
import type { DrawnAs } from '@jutbank/core/drawing';
import type { FairQuestion, LookQuestion } from '@jutbank/core/fair';
import type { GradeQuestion } from '@jutbank/core/condition';
import { keptDocument } from '../base/kept.ts';
import { BAG } from './bag.ts';

let opened: Promise<FairTable> | undefined;
const table = (): Promise<FairTable> => (opened ??= open());

async function open(): Promise<FairTable> {
  const bag = await keptDocument(BAG);
  if (typeof bag !== 'object' || bag === null || !isBag(bag))
    throw new Error('The bag on this device cannot be opened. Pack it again.');
  return new FairTable(bag);
}

const answers = {
  search: async (words: string) => (await table()).search(words),
  look: async (question: LookQuestion) => (await table()).look(question),
  conditionIndex: async (question: GradeQuestion) => (await table()).conditionIndex(question),
  judge: async (question: FairQuestion) => (await table()).judge(question),
  recipe: async (as: DrawnAs) => (await table()).recipe(as),
};
export type TableWorker = typeof answers;
expose(answers);
