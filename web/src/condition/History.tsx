/** How its condition came to be what it is: as found, every treatment, every new look; quarantine; parts that moved. */
import { Button } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { findingInWords, mainScale, PARTS } from '@jutbank/core/condition';
import { edtfInWords } from '@jutbank/core/dates';
import {
  MOVE_REASONS,
  type ConditionFile,
  type ConditionState,
  type PartMove,
  type TreatmentRecord,
} from '@jutbank/contract/condition';
import type { Page } from '@jutbank/contract/http';
import type { PieceSheet, PieceSlip } from '@jutbank/contract/intake';
import { ApiProblem, call, get } from '../app/api.ts';
import { Failed, Loading } from '../app/states.tsx';
import { inLine, useTakeSheet } from '../parts/usePiece.ts';
import { dayText, moneyText, sentence } from '../parts/words.ts';

const WHY: Record<ConditionState['why'], string> = {
  'as-found': 'As found',
  'inspected-again': 'Inspected again',
  treated: 'After treatment',
  'part-moved': 'After a part was moved',
};

const useFile = (sheet: PieceSheet) =>
  useQuery({
    queryKey: ['of-piece', sheet.id, 'condition-file', sheet.version],
    queryFn: () => get<ConditionFile>(`/pieces/${sheet.id}/condition`),
  });

export function History({
  sheet,
  may,
  onDone,
}: {
  sheet: PieceSheet;
  may: boolean;
  /** a part was moved: findings have changed */
  onDone: () => void;
}) {
  const file = useFile(sheet);
  if (file.isPending) return <Loading />;
  if (file.isError) return <Failed error={file.error} retry={() => void file.refetch()} />;
  const { states, moves } = file.data;
  return (
    <div className="stage twocol">
      <section aria-label="States">
        <h2 className="sec">
          How it stood <small>nothing here is ever changed</small>
        </h2>
        {states.length === 0 && (
          <p className="soft">The first state is kept when the inspection is finished: the piece as found.</p>
        )}
        <ol className="states">
          {states.map((s, i) => (
            <State key={s.id} state={s} before={states[i - 1]} sheet={sheet} />
          ))}
        </ol>
        <h2 className="sec" style={{ marginTop: 18 }}>
          Treatments
        </h2>
        <Treatments sheet={sheet} />
      </section>
      <section aria-label="Kept apart and moved">
        <Quarantine sheet={sheet} file={file.data} may={may} />
        <h2 className="sec" style={{ marginTop: 18 }}>
          Parts that moved <small>recorded on both pieces</small>
        </h2>
        {moves.length === 0 && <p className="soft">None is known.</p>}
        {moves.map((m) => (
          <Move key={m.id} move={m} piece={sheet.id} />
        ))}
        {may && <NewMove sheet={sheet} onDone={onDone} />}
      </section>
    </div>
  );
}

function State({
  state,
  before,
  sheet,
}: {
  state: ConditionState;
  before: ConditionState | undefined;
  sheet: PieceSheet;
}) {
  const scale = mainScale(sheet.intake.construction);
  const grade = state.grade.grades.find((g) => g.scale === scale);
  const [was, is] = [before?.findings.map(findingInWords) ?? [], state.findings.map(findingInWords)];
  const gone = was.filter((f) => !is.includes(f));
  const come = before ? is.filter((f) => !was.includes(f)) : is;
  return (
    <li>
      <b>{WHY[state.why]}</b>{' '}
      <span className="soft">
        {dayText(state.notedAt)}, {state.notedBy}
      </span>
      <div>
        {sentence(grade?.grade ?? '')}{' '}
        <span className="soft">
          index <span className="num">{state.grade.conditionIndex.toFixed(1)}</span>, rules{' '}
          {grade?.rules.replace('/', ' version ')}
        </span>
      </div>
      {come.length > 0 && (
        <ul>
          {come.map((f, i) => (
            <li key={`${f} ${i}`}>
              {before ? '+ ' : ''}
              {f}
            </li>
          ))}
        </ul>
      )}
      {gone.length > 0 && (
        <ul className="gone">
          {gone.map((f, i) => (
            <li key={`${f} ${i}`}>− {f}</li>
          ))}
        </ul>
      )}
      {!before && come.length === 0 && <p className="soft">Nothing was found.</p>}
    </li>
  );
}

/** What was done to the piece, one entry for each treatment. */
export function Treatments({ sheet }: { sheet: PieceSheet }) {
  const file = useFile(sheet);
  if (file.isPending) return <Loading />;
  if (file.isError) return <Failed error={file.error} retry={() => void file.refetch()} />;
  const { treatments } = file.data;
  return treatments.length === 0 ? (
    <p className="soft">None is recorded.</p>
  ) : (
    treatments.map((t) => <Treatment key={t.id} treatment={t} sheet={sheet} />)
  );
}

function Treatment({ treatment: t, sheet }: { treatment: TreatmentRecord; sheet: PieceSheet }) {
  const shown = (ids: readonly string[]) => sheet.pictures.filter((p) => ids.includes(p.id));
  return (
    <article className="way">
      <header>
        <b>{sentence(t.kind)}</b>
        <span className="soft"> {dayText(`${t.doneOn}T00:00:00Z`)}</span>
        <span className="grow" />
        <span className="num">{t.cost ? moneyText(t.cost) : ''}</span>
      </header>
      <p>
        {[t.product, t.grit && `${t.grit} grit`].filter(Boolean).join(', ') || 'Product not named'}; by{' '}
        {t.doneBy}: {t.reason}. {t.reversible ? 'Can be undone.' : 'Cannot be undone.'}
      </p>
      {(['before', 'after'] as const).map((side) =>
        shown(t.pictures[side]).map((p) => (
          <figure key={`${side} ${p.id}`} className="beforeafter">
            <img src={`/api/v1/pictures/${p.hash}/thumb`} alt={`${sentence(side)}: ${p.caption}`} />
            <figcaption className="soft">{sentence(side)}</figcaption>
          </figure>
        )),
      )}
    </article>
  );
}

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const REVIEW_DAYS = 30;

function Quarantine({ sheet, file, may }: { sheet: PieceSheet; file: ConditionFile; may: boolean }) {
  const queries = useQueryClient();
  const open = file.quarantine.find((q) => q.endedOn === null);
  const [reason, setReason] = useState('');
  const [reviewOn, setReviewOn] = useState(inDays(REVIEW_DAYS));
  const [outcome, setOutcome] = useState('');
  const fresh = async () => {
    await queries.invalidateQueries({ queryKey: ['piece', sheet.id] });
    await queries.invalidateQueries({ queryKey: ['of-piece', sheet.id] });
    await queries.invalidateQueries({ queryKey: ['tray'] });
  };
  const keep = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        call('POST', `/pieces/${sheet.id}/quarantine`, {
          body: { since: inDays(0), reviewOn, reason },
          version: sheet.version,
        }),
      ),
    onSuccess: fresh,
  });
  const release = useMutation({
    mutationFn: () => call('PUT', `/quarantine/${open?.id}`, { body: { endedOn: inDays(0), outcome } }),
    onSuccess: fresh,
  });
  const problem = keep.error instanceof ApiProblem ? keep.error : undefined;
  return (
    <>
      <h2 className="sec">Kept apart</h2>
      {file.vapour.length > 0 && !open && (
        <div className="note bad">
          <b>{file.vapour.join(', ')}</b>Old plastics shrink and give off acid vapour that rusts their
          neighbours: keep it apart, ventilate, look again in a month.
        </div>
      )}
      {open ? (
        <div className="note bad">
          <b>In quarantine since {dayText(`${open.since}T00:00:00Z`)}</b>
          {open.reason}. To be looked at again on {dayText(`${open.reviewOn}T00:00:00Z`)}.
          {may && (
            <form
              className="askline"
              onSubmit={(e) => {
                e.preventDefault();
                release.mutate();
              }}
            >
              <input
                className="line"
                aria-label="What was seen at the review"
                placeholder="no smell, no new rust on the test plate"
                value={outcome}
                onChange={(e) => setOutcome(e.target.value)}
              />
              <Button type="submit" disabled={release.isPending}>
                Let it out
              </Button>
            </form>
          )}
        </div>
      ) : may ? (
        <form
          className="askline"
          onSubmit={(e) => {
            e.preventDefault();
            keep.mutate();
          }}
        >
          <input
            className="line"
            aria-label="Why it is kept apart"
            placeholder="why: smells of vinegar, test plate rusted…"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <input
            className="line num"
            type="date"
            aria-label="Look again on"
            style={{ width: 150 }}
            value={reviewOn}
            onChange={(e) => setReviewOn(e.target.value)}
          />
          <Button type="submit" disabled={keep.isPending}>
            Keep it apart
          </Button>
        </form>
      ) : (
        <p className="soft">It is not kept apart.</p>
      )}
      {problem && (
        <p className="problem" role="alert">
          {problem.at('/reason') ?? problem.at('/reviewOn') ?? problem.at('/since') ?? problem.message}
        </p>
      )}
      {file.quarantine
        .filter((q) => q.endedOn !== null)
        .map((q) => (
          <p key={q.id} className="soft">
            {dayText(`${q.since}T00:00:00Z`)} – {dayText(`${q.endedOn}T00:00:00Z`)}: {q.reason}
            {q.outcome !== '' && `; ${q.outcome}`}
          </p>
        ))}
    </>
  );
}

function Move({ move, piece }: { move: PartMove; piece: string }) {
  const came = move.to.piece?.id === piece;
  const other = came ? move.from : move.to;
  return (
    <p>
      <b>{sentence(move.part)}</b> {came ? 'came from' : 'went to'}{' '}
      {other.piece ? (
        <Link to={`/pieces/${other.piece.id}/condition`}>
          {other.piece.stockNumber} {other.piece.title}
        </Link>
      ) : (
        other.where || 'somewhere unknown'
      )}{' '}
      <span className="soft">
        ({sentence(move.why).toLowerCase()}
        {move.movedOn !== null && `, ${edtfInWords(move.movedOn)}`}
        {move.note !== '' && `: ${move.note}`})
      </span>
    </p>
  );
}

function NewMove({ sheet, onDone }: { sheet: PieceSheet; onDone: () => void }) {
  const takeSheet = useTakeSheet();
  const [part, setPart] = useState<string>('clip');
  const [way, setWay] = useState<'came' | 'went'>('came');
  const [why, setWhy] = useState<string>('exchanged');
  const [other, setOther] = useState('');
  const pieces = useQuery({
    queryKey: ['pieces', 'for-moves'],
    queryFn: () => get<Page<PieceSlip>>('/pieces?limit=200'),
  });
  const named = pieces.data?.items.find((p) => p.stockNumber === other.trim().split(' ')[0]);
  const save = useMutation({
    mutationFn: async () => {
      const here = { piece: sheet.id, where: '' };
      const there = { piece: named?.id ?? null, where: named ? '' : other.trim() };
      await inLine(sheet.id, () =>
        call('POST', '/part-moves', {
          body: { part, why, from: way === 'came' ? there : here, to: way === 'came' ? here : there },
        }),
      );
      return get<PieceSheet>(`/pieces/${sheet.id}`);
    },
    onSuccess: (fresh) => {
      takeSheet(fresh);
      setOther('');
      onDone();
    },
  });
  return (
    <form
      className="askline moves"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <select className="line" aria-label="Part" value={part} onChange={(e) => setPart(e.target.value)}>
        {PARTS.map((p) => (
          <option key={p} value={p}>
            {sentence(p)}
          </option>
        ))}
      </select>
      <select
        className="line"
        aria-label="Way"
        value={way}
        onChange={(e) => setWay(e.target.value as 'came' | 'went')}
      >
        <option value="came">came from</option>
        <option value="went">went to</option>
      </select>
      <input
        className="line"
        aria-label="The other piece"
        list="other-pieces"
        placeholder="stock number, or where"
        value={other}
        onChange={(e) => setOther(e.target.value)}
      />
      <datalist id="other-pieces">
        {pieces.data?.items
          .filter((p) => p.id !== sheet.id)
          .map((p) => (
            <option key={p.id} value={`${p.stockNumber} ${p.title}`} />
          ))}
      </datalist>
      <select className="line" aria-label="Reason" value={why} onChange={(e) => setWhy(e.target.value)}>
        {MOVE_REASONS.map((r) => (
          <option key={r} value={r}>
            {sentence(r).toLowerCase()}
          </option>
        ))}
      </select>
      <Button type="submit" disabled={save.isPending || other.trim() === ''}>
        Record the move
      </Button>
      {save.error && (
        <p className="problem" role="alert">
          {String(save.error.message)}
        </p>
      )}
    </form>
  );
}
