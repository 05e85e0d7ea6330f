/** The shop's stored papers around a form over a part of them: read, told when they were kept, begun anew with each version. */
import { useState, type ReactNode } from 'react';
import { paperSettingsRoutes, type VersionedPapers } from '@jutbank/contract/shop';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';

export interface PaperFormProps {
  readonly seen: VersionedPapers;
  /** this version is the one that was stored here a moment ago */
  readonly justKept: boolean;
  readonly onKept: (version: number) => void;
}

/** @param form is drawn with the version as its key: what was typed over an older one is not carried on */
export function StoredPapers({ form }: { form: (props: PaperFormProps & { key: number }) => ReactNode }) {
  const settings = useAnswer(paperSettingsRoutes.papers);
  const [kept, setKept] = useState<number>();
  if (settings.isPending) return <Loading />;
  if (settings.isError) return <Failed error={settings.error} retry={() => void settings.refetch()} />;
  const { version } = settings.data;
  return form({ key: version, seen: settings.data, justKept: kept === version, onKept: setKept });
}
