/** Blind second gradings: set, looked at by somebody else, and how well the two agree. */
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { Tick } from '../parts/fields/choices.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { conditionRoutes, type GradingSheet } from '@jutbank/contract/condition';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { Button } from '@mui/material';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { defectInWords } from '@jutbank/core/condition';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
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
        <PageTitle>Second gradings</PageTitle>
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
      <div className={list.data.items.length > 0 || fresh ? 'rulesgrid two' : undefined}>
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
  const pieces = useAnswer(pieceRoutes.listPieces, { query: { limit: 200 } });
  const form = useContractForm(conditionRoutes.setGrading, {
    empty: { title: '', pieces: [] },
    onSent: async (sheet) => {
      await answers.invalidate(conditionRoutes.gradings, conditionRoutes.grading);
      onSet(sheet.id);
    },
  });
  const inspected = pieces.data?.items.filter((p) => p.readings.condition?.inspected) ?? [];
  const chosen = form.values.pieces;
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <TextInput label="Title" placeholder="November, ten folders" {...form.field('title')} />
      <h2 className="sec" style={{ marginTop: 10 }}>
        Inspected pieces <small>{chosen.length} chosen</small>
      </h2>
      <div className="pickpieces">
        {inspected.map((p) => (
          <Tick
            key={p.id}
            label={
              <>
                <span className="num">{p.stockNumber}</span> {p.title}
              </>
            }
            value={chosen.includes(p.id)}
            onChange={(taken) =>
              form.set('pieces', taken ? [...chosen, p.id] : chosen.filter((x) => x !== p.id))
            }
          />
        ))}
        {inspected.length === 0 && <p className="soft">No piece was inspected yet.</p>}
      </div>
      <Submit form={form} words="Set them" disabled={chosen.length === 0} />
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
            <th>
              <span className="visually-hidden">Second grading</span>
            </th>
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
                    <Button variant="text" className="quiet" onClick={() => setLooking(piece)}>
                      Look at it
                    </Button>
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
