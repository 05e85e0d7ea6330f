/** Who had it when, on what evidence; the strip on the year rule; and the ledger under it. */
import { provenanceRoutes } from '@jutbank/contract/provenance';
import { Button, FormControlLabel, MenuItem, Switch, TextField } from '@mui/material';
import { useState } from 'react';
import { edtfInWords } from '@jutbank/core/dates';
import {
  EVIDENCE_KINDS,
  EVIDENCE_WORDS,
  trailText,
  type CustodyEvent,
  type EvidenceKind,
} from '@jutbank/core/provenance';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { DateField } from '../parts/DateField.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { useStage } from '../pieces/usePiece.ts';
import { dayText, sentence } from '../parts/words.ts';
import { YearRule } from '../parts/YearRule.tsx';

const asBody = (events: readonly CustodyEvent[]) => ({ events });

export default function TrailStage() {
  const sheet = useSheet();
  const mayWork = useMay('work') && sheet.sale === null;
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
                  – {EVIDENCE_WORDS[e.evidence]}
                  {e.how && `; ${e.how}`}
                </span>
              </span>
              <button
                type="button"
                className="quiet"
                disabled={!mayWork}
                aria-label={`Take away ${e.holder}`}
                onClick={() => state.set(state.value.filter((_, k) => k !== i))}
              >
                ×
              </button>
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
      </section>
    </div>
  );
}

function AddEvent({ onAdd }: { onAdd: (event: CustodyEvent) => void }) {
  const empty = {
    holder: '',
    private: true,
    place: '',
    how: '',
    evidence: 'owner-statement' as EvidenceKind,
  };
  const [event, setEvent] = useState(empty);
  const [period, setPeriod] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const [problem, setProblem] = useState<{ holder?: string; period?: string }>({});
  const add = () => {
    const wrong = {
      ...(event.holder.trim() === '' ? { holder: 'Who had it?' } : {}),
      ...(period === null ? { period: 'When? 1934 to 1960, about 1950, since 1988' } : {}),
    };
    setProblem(wrong);
    if (period === null || event.holder.trim() === '') return;
    onAdd({
      holder: event.holder.trim(),
      private: event.private,
      place: event.place.trim() || null,
      period,
      how: event.how.trim() || null,
      evidence: event.evidence,
      note: null,
    });
    setEvent(empty);
    setPeriod(null);
    setRound(round + 1);
  };
  return (
    <form
      className="askbox"
      style={{ marginTop: 12 }}
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <div style={{ display: 'grid', gap: 10, gridTemplateColumns: 'repeat(auto-fit, minmax(150px, 1fr))' }}>
        <TextField
          label="Who"
          value={event.holder}
          error={!!problem.holder}
          helperText={problem.holder}
          onChange={(e) => setEvent({ ...event, holder: e.target.value })}
        />
        <DateField key={round} label="When" value={period} problem={problem.period} onChange={setPeriod} />
        <TextField
          label="Place"
          value={event.place}
          onChange={(e) => setEvent({ ...event, place: e.target.value })}
        />
        <TextField
          select
          label="On what evidence"
          value={event.evidence}
          onChange={(e) => setEvent({ ...event, evidence: e.target.value as EvidenceKind })}
        >
          {EVIDENCE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(EVIDENCE_WORDS[k])}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="How it came to them"
          value={event.how}
          onChange={(e) => setEvent({ ...event, how: e.target.value })}
        />
      </div>
      <div style={{ display: 'flex', gap: 14, alignItems: 'center', marginTop: 8, flexWrap: 'wrap' }}>
        <FormControlLabel
          control={
            <Switch
              size="small"
              checked={event.private}
              onChange={(e) => setEvent({ ...event, private: e.target.checked })}
            />
          }
          label="Private person: the name is not published"
        />
        <Button type="submit" variant="contained">
          Add
        </Button>
      </div>
    </form>
  );
}
