import { intakeRoutes } from '@jutbank/contract/intake';
import { useCallback } from 'react';
import type { IntakeBody } from '@jutbank/contract/pieces';
import { useMay, useSession } from '../base/session.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { isHere, useStage } from '../pieces/usePiece.ts';
import { IntakeForm } from './IntakeForm.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { Pictures } from '../pieces/Pictures.tsx';
import { Companions } from '../pieces/Companions.tsx';
import { Place } from '../pieces/Place.tsx';
import { WantedBy } from '../series/WantedBy.tsx';

const asBody = (value: IntakeBody) => value;

export default function IntakeStage() {
  const sheet = useSheet();
  const { shop } = useSession();
  const mayWork = useMay('work') && isHere(sheet);
  const state = useStage(sheet, intakeRoutes.putIntake, sheet.intake, asBody);
  const problemAt = useCallback((pointer: string) => state.problem?.at(pointer), [state.problem]);
  return (
    <div className="stage twocol intake">
      <section>
        <StageBar title="As it came in" state={state} />
        <IntakeForm
          value={state.value}
          currency={shop.baseCurrency}
          disabled={!mayWork}
          problemAt={problemAt}
          onChange={state.set}
        />
      </section>
      <section>
        <WantedBy piece={sheet.id} />
        <div className="pictures-first">
          <h2 className="sec">
            Pictures <small>before anything is touched</small>
          </h2>
          <Pictures sheet={sheet} disabled={!mayWork} />
        </div>
        <div style={{ marginTop: 16 }}>
          <Place key={sheet.place} sheet={sheet} disabled={!mayWork} />
        </div>
        <Companions sheet={sheet} disabled={!mayWork} />
        <div className="note" style={{ marginTop: 16 }}>
          <b>Record before you touch.</b> Nothing is cleaned, opened, sharpened or taken apart before it is
          recorded as found. Open blades: edge away, glove on, the piece held fast.
        </div>
      </section>
    </div>
  );
}
