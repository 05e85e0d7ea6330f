/** The form over the shop's papers: one stored document, of which each page shows its part. */
import { paperSettingsRoutes, type PaperSettings, type VersionedPapers } from '@jutbank/contract/shop';
import { useKeptAnswers } from '../base/answers.ts';
import { useContractForm, type ContractForm } from '../parts/fields/index.ts';

export type PaperForm = ContractForm<PaperSettings, VersionedPapers>;

/** @param onKept hears the version that was stored */
export function usePaperForm(seen: VersionedPapers, onKept: (version: number) => void): PaperForm {
  const answers = useKeptAnswers();
  return useContractForm(paperSettingsRoutes.putPapers, {
    empty: seen.settings,
    version: seen.version,
    toBody: (settings: PaperSettings) => settings,
    onSent: (kept) => {
      onKept(kept.version);
      answers.set(paperSettingsRoutes.papers, {}, kept);
    },
  });
}
