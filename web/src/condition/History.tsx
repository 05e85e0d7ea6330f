/** How its condition came to be what it is: as found, every treatment, every new look; quarantine; parts that moved. */
import { conditionRoutes, type ConditionState, type TreatmentRecord } from '@jutbank/contract/condition';
import { findingInWords } from '@jutbank/core/condition';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { dayText, moneyText, sentence } from '../parts/words.ts';
import { Moves } from './Moves.tsx';
import { Quarantine } from './Quarantine.tsx';

const WHY: Record<ConditionState['why'], string> = {
  'as-found': 'As found',
  'inspected-again': 'Inspected again',
  treated: 'After treatment',
  'part-moved': 'After a part was moved',
};

const useFile = (sheet: PieceSheet) => useAnswer(conditionRoutes.conditionFile, { params: { id: sheet.id } });

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
        <Moves sheet={sheet} moves={moves} may={may} onDone={onDone} />
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
  const scale = sheet.quotedScale;
  const grade = state.grade.grades.find((g) => g.scale === scale);
  const [was, is] = [
    before?.findings.map((f) => findingInWords(f)) ?? [],
    state.findings.map((f) => findingInWords(f)),
  ];
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
        <span className="soft"> {dayText(t.doneOn)}</span>
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
