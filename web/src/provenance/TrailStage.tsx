/** Who had it when, on what evidence; the strip on the year rule; and the ledger under it. */
import { provenanceRoutes } from '@jutbank/contract/provenance';
import { Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { edtfInWords } from '@jutbank/core/dates';
import {
  EVIDENCE_KINDS,
  evidenceInWords,
  trailText,
  type CustodyEvent,
  type EvidenceKind,
} from '@jutbank/core/provenance';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { useUnsaved } from '../base/unsaved.ts';
import { DateInput } from '../parts/fields/figures.tsx';
import { optionsOf, Select, Tick } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { AsKnown } from './AsKnown.tsx';
import { Documents } from './Documents.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { isHere, useStage } from '../pieces/usePiece.ts';
import { dayText, sentence } from '../parts/words.ts';
import { YearRule } from '../parts/YearRule.tsx';

const asBody = (events: readonly CustodyEvent[]) => ({ events });

export default function TrailStage() {
  const sheet = useSheet();
  const mayWork = useMay('work') && isHere(sheet);
  const state = useStage(sheet, provenanceRoutes.putCustody, sheet.custody, asBody);
  const ledger = useAnswer(provenanceRoutes.ledger, { params: { id: sheet.id }, query: { limit: 40 } });
  return (
    <div className="stage twocol">
      <section>
        <StageBar title="Who had it when" state={state} />
        {sheet.custody.length > 0 && (
          <YearRule
            core={sheet.readings.when?.core}
            strip={sheet.trail.strip}
            label={`Paper trail: ${sheet.trail.word}`}
          />
        )}
        {sheet.trail.problems.map((p) => (
          <div key={p.detail} className="note bad" style={{ margin: '6px 0' }}>
            {p.detail}
          </div>
        ))}
        {state.value.length === 0 && (
          <p className="soft" style={{ padding: '8px 0' }}>
            Nothing is known yet of who had it. Write down what the seller can tell, as what it is: the
            owner’s word.
          </p>
        )}
        <ol>
          {state.value.map((e, i) => (
            <li
              key={`${e.holder} ${e.period} ${i}`}
              className="f"
              style={{ gridTemplateColumns: '1fr auto' }}
            >
              <span>
                <b>{e.holder}</b>
                {e.private && <span className="soft"> (not published)</span>}
                {e.place && `, ${e.place}`} <span className="num">{edtfInWords(e.period)}</span>
                <span className="soft">
                  {' '}
                  – {evidenceInWords(e.evidence)}
                  {e.how && `; ${e.how}`}
                </span>
              </span>
              <Button
                variant="text"
                className="quiet"
                disabled={!mayWork}
                aria-label={`Take away ${e.holder}`}
                onClick={() => state.set(state.value.filter((_, k) => k !== i))}
              >
                ×
              </Button>
            </li>
          ))}
        </ol>
        {mayWork && <AddEvent onAdd={(e) => state.set([...state.value, e])} />}
        {state.value.length > 0 && (
          <>
            <h2 className="sec" style={{ marginTop: 16 }}>
              As it would be printed
            </h2>
            <p>{trailText(state.value)}</p>
          </>
        )}
      </section>
      <section>
        <Documents sheet={sheet} />
        <h2 className="sec" style={{ marginTop: 20 }}>
          To hand over
        </h2>
        <div className="acts">
          <Button href={`/api/v1/pieces/${sheet.id}/dossier.pdf`} target="_blank">
            Dossier
          </Button>
          <Button href={`/api/v1/labels.pdf?pieces=${sheet.id}&on=roll`} target="_blank">
            Label
          </Button>
          <Button href={`/api/v1/pieces/${sheet.id}/custody.csv`}>Owners, CSV</Button>
          <Button href={`/api/v1/pieces/${sheet.id}/linked-art.json`}>Linked Art</Button>
          <Button component={Link} to="/bodies">
            Bodies and their names
          </Button>
        </div>
        <h2 className="sec">
          The ledger <small>append-only; each entry is hashed over the one before it</small>
        </h2>
        <table className="grid">
          <tbody>
            {ledger.data?.items.map((entry) => (
              <tr key={entry.seq}>
                <td className="num soft">{entry.seq}</td>
                <td>{sentence(entry.kind)}</td>
                <td className="soft">{entry.by}</td>
                <td className="num soft">{dayText(entry.at)}</td>
                <td className="mono soft" style={{ fontSize: 11 }}>
                  {entry.hash.slice(0, 10)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <AsKnown id={sheet.id} />
      </section>
    </div>
  );
}

const NEW_EVENT = {
  holder: '',
  private: true,
  place: '',
  period: null as string | null,
  understood: true,
  how: '',
  evidence: 'owner-statement' as EvidenceKind,
};
/** What is missing of it, by its field. */
function missing({ holder, period, understood }: typeof NEW_EVENT) {
  return {
    holder: holder.trim() === '' ? 'Who had it?' : undefined,
    period: period === null || !understood ? 'When? 1934 to 1960, about 1950, since 1988' : undefined,
  };
}

function AddEvent({ onAdd }: { onAdd: (event: CustodyEvent) => void }) {
  const [event, setEvent] = useState(NEW_EVENT);
  useUnsaved(event !== NEW_EVENT);
  const [round, setRound] = useState(0);
  const [tried, setTried] = useState(false);
  const problem = tried ? missing(event) : { holder: undefined, period: undefined };
  const put = (change: Partial<typeof NEW_EVENT>) => setEvent({ ...event, ...change });
  const add = () => {
    const wrong = missing(event);
    setTried(true);
    if (event.period === null || wrong.holder !== undefined || wrong.period !== undefined) return;
    onAdd({
      holder: event.holder.trim(),
      private: event.private,
      place: event.place.trim() || null,
      period: event.period,
      how: event.how.trim() || null,
      evidence: event.evidence,
      note: null,
    });
    setEvent(NEW_EVENT);
    setTried(false);
    setRound(round + 1);
  };
  return (
    <form
      className="askbox"
      style={{ marginTop: 12 }}
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <div className="fields across">
        <TextInput
          label="Who"
          value={event.holder}
          problem={problem.holder}
          onChange={(holder) => put({ holder })}
        />
        <DateInput
          key={round}
          label="When"
          why="As you would say it: 1934 to 1960, about 1950"
          value={event.period}
          problem={problem.period}
          onChange={(period, understood) => put({ period, understood })}
        />
        <TextInput label="Place" value={event.place} onChange={(place) => put({ place })} />
        <Select
          label="On what evidence"
          value={event.evidence}
          options={optionsOf(EVIDENCE_KINDS, (k) => sentence(evidenceInWords(k)))}
          onChange={(evidence) => evidence !== null && put({ evidence })}
        />
        <TextInput label="How it came to them" value={event.how} onChange={(how) => put({ how })} />
      </div>
      <div className="submit" style={{ marginTop: 8 }}>
        <Tick
          label="Private person: the name is not published"
          value={event.private}
          onChange={(hidden) => put({ private: hidden })}
        />
        <Button type="submit" variant="contained">
          Add
        </Button>
      </div>
    </form>
  );
}
