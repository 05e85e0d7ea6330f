/** Blind second gradings: set, looked at by somebody else, and how well the two agree. */
import { conditionRoutes, type GradingSheet } from '@jutbank/contract/condition';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { defectInWords } from '@jutbank/core/condition';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { dayText, sentence } from '../parts/words.ts';
import { SecondLook } from './SecondLook.tsx';
import './condition.css';

export default function GradingsPage() {
  const [query, setQuery] = useSearchParams();
  const may = useMay('appraise');
  const list = useAnswer(conditionRoutes.gradings);
  if (list.isPending) return <Loading />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  const chosen = query.get('grading') ?? list.data.items[0]?.id;
  const fresh = query.get('new') === '1';
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Second gradings</h1>
        <span className="soft">two people, neither seeing what the other found</span>
        <span className="grow" />
        <Link className="quiet" to="/condition-rules">
          Rules of grading
        </Link>
        {may && (
          <Button variant="contained" onClick={() => setQuery({ new: '1' })}>
            Set pieces
          </Button>
        )}
      </div>
      <div className="rulesgrid two">
        <nav aria-label="Gradings">
          {list.data.items.map((g) => (
            <button
              key={g.id}
              type="button"
              className="cand"
              aria-pressed={!fresh && g.id === chosen}
              onClick={() => setQuery({ grading: g.id })}
            >
              <b>{g.title}</b>
              <div className="soft" style={{ fontSize: 12 }}>
                {g.looked} of {g.pieces} looked at, set by {g.setBy} {dayText(g.setAt)}
              </div>
            </button>
          ))}
          {list.data.items.length === 0 && (
            <p className="soft">
              None was set yet. Choose inspected pieces; somebody else grades them without seeing the first
              grade.
            </p>
          )}
        </nav>
        {fresh ? (
          <NewGrading onSet={(id) => setQuery({ grading: id })} />
        ) : (
          chosen !== undefined && <Sheet key={chosen} id={chosen} />
        )}
      </div>
    </div>
  );
}

function NewGrading({ onSet }: { onSet: (id: string) => void }) {
  const answers = useKeptAnswers();
  const [title, setTitle] = useState('');
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const pieces = useAnswer(pieceRoutes.listPieces, { query: { limit: 200 } });
  const set = useMutation({
    mutationFn: () => send(conditionRoutes.setGrading, { body: { title, pieces: chosen } }),
    onSuccess: async (sheet) => {
      await answers.invalidate(conditionRoutes.gradings, conditionRoutes.grading);
      onSet(sheet.id);
    },
  });
  const inspected = pieces.data?.items.filter((p) => p.readings.condition?.inspected) ?? [];
  const problem = set.error instanceof ApiProblem ? set.error : undefined;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        set.mutate();
      }}
    >
      <div className="tfield">
        <label htmlFor="gradingtitle">Title</label>
        <input
          id="gradingtitle"
          className="line"
          value={title}
          placeholder="November, ten folders"
          onChange={(e) => setTitle(e.target.value)}
        />
        {problem?.at('/title') !== undefined && <span className="problem">{problem.at('/title')}</span>}
      </div>
      <h2 className="sec" style={{ marginTop: 10 }}>
        Inspected pieces <small>{chosen.length} chosen</small>
      </h2>
      <div className="pickpieces">
        {inspected.map((p) => (
          <label key={p.id}>
            <input
              type="checkbox"
              checked={chosen.includes(p.id)}
              onChange={() =>
                setChosen(chosen.includes(p.id) ? chosen.filter((x) => x !== p.id) : [...chosen, p.id])
              }
            />{' '}
            <span className="num">{p.stockNumber}</span> {p.title}
          </label>
        ))}
        {inspected.length === 0 && <p className="soft">No piece was inspected yet.</p>}
      </div>
      {problem && problem.at('/title') === undefined && <p className="problem">{problem.message}</p>}
      <Button type="submit" variant="contained" disabled={set.isPending || chosen.length === 0}>
        Set them
      </Button>
    </form>
  );
}

function Sheet({ id }: { id: string }) {
  const may = useMay('work');
  const [looking, setLooking] = useState<GradingSheet['items'][number]['piece']>();
  const sheet = useAnswer(conditionRoutes.grading, { params: { id } });
  if (sheet.isPending) return <Loading />;
  if (sheet.isError) return <Failed error={sheet.error} retry={() => void sheet.refetch()} />;
  const { items, agreement, differ } = sheet.data;
  return (
    <div>
      <table className="grid ruletable">
        <thead>
          <tr>
            <th>Piece</th>
            <th>First</th>
            <th>Second</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {items.map(({ piece, looked }) => (
            <tr key={piece.id}>
              <td>
                <span className="num">{piece.stockNumber}</span> {piece.title}
              </td>
              <td>{looked ? sentence(looked.firstGrade) : <span className="soft">hidden</span>}</td>
              <td className={looked && looked.grade !== looked.firstGrade ? 'warn' : undefined}>
                {looked ? sentence(looked.grade) : '–'}
              </td>
              <td>
                {looked ? (
                  <span className="soft">
                    {looked.by}, {dayText(looked.at)}
                  </span>
                ) : (
                  may && (
                    <button type="button" className="quiet" onClick={() => setLooking(piece)}>
                      Look at it
                    </button>
                  )
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {looking !== undefined && (
        <SecondLook key={looking.id} grading={id} piece={looking} onDone={() => setLooking(undefined)} />
      )}
      <h2 className="sec" style={{ marginTop: 16 }}>
        Agreement <small>weighted kappa: 1 always the same grade, 0 as by chance</small>
      </h2>
      <table className="grid ruletable">
        <tbody>
          {agreement.map(({ scale, agreement: a }) => (
            <tr key={scale}>
              <td>{sentence(scale)} scale</td>
              <td className="r num">{a.kappa === undefined ? '–' : a.kappa.toFixed(2)}</td>
              <td className="soft">
                {a.pieces < 2
                  ? 'two pieces at least are needed'
                  : `same grade on ${Math.round(a.same * a.pieces)} of ${a.pieces}${a.kappa === undefined ? '; one grade throughout' : ''}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="sec" style={{ marginTop: 16 }}>
        Where they differ
      </h2>
      {differ.length === 0 ? (
        <p className="soft">{sheet.data.looked === 0 ? 'Nothing was looked at yet.' : 'On nothing.'}</p>
      ) : (
        <table className="grid ruletable">
          <thead>
            <tr>
              <th>Defect</th>
              <th className="r">only the first</th>
              <th className="r">only the second</th>
              <th className="r">both</th>
            </tr>
          </thead>
          <tbody>
            {differ.map((d) => (
              <tr key={`${d.part} ${d.defect}`}>
                <td>
                  {sentence(d.part)}: {defectInWords(d.defect)}
                </td>
                <td className="r num">{d.onlyFirst}</td>
                <td className="r num">{d.onlySecond}</td>
                <td className="r num">{d.both}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
