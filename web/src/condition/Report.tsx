/** The condition report as a page: in the order of inspection, every finding with its picture, what was not looked at. */
import {
  belongsTo,
  findingInWords,
  inspectionFor,
  notExamined,
  partInWords,
  stepState,
  type Finding,
  type GradeAnswer,
} from '@jutbank/core/condition';
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import type { ConditionBody } from '@jutbank/contract/condition';
import type { PieceSheet } from '@jutbank/contract/intake';
import { useVocabulary } from '../parts/names.ts';
import { sentence } from '../parts/words.ts';
import { Treatments } from './History.tsx';

export function Report({
  sheet,
  body,
  grade,
}: {
  sheet: PieceSheet;
  body: ConditionBody;
  grade: GradeAnswer;
}) {
  const vocabulary = useVocabulary();
  const { findings, inspection } = body;
  const sections = inspectionFor(sheet.intake.construction, inspection);
  const missing = notExamined(sections, inspection, findings);
  const steps = sections.flatMap((s) => s.steps);
  const elsewhere = findings.filter((f) => !steps.some((step) => belongsTo(f, step)));
  const measures = sheet.observations.flatMap((o) => {
    if (!('measure' in o)) return [];
    const feature = vocabulary.data?.features.find((f) => f.id === o.feature);
    const text = formatQuantity(o.measure, dimensionOfUnit(feature?.unit), o.resolution ?? 0.1);
    return [{ id: o.feature, label: feature?.label ?? sentence(o.feature), text }];
  });
  return (
    <article className="report" aria-label="Condition report">
      <header>
        <h2>Condition report</h2>
        <p>
          <span className="num">{sheet.stockNumber}</span> {sheet.intake.title}
        </p>
        <p>
          Condition index <b className="num">{grade.conditionIndex.toFixed(1)}</b> of 100;{' '}
          {grade.grades.map((g) => `${g.scale} scale ${sentence(g.grade).toLowerCase()}`).join(', ')}{' '}
          <span className="soft">(rules {grade.grades.map((g) => g.rules).join(', ')})</span>
        </p>
        {grade.grades
          .flatMap((g) => g.caps.map((c) => `${sentence(g.scale)}: ${c.says}`))
          .map((says, i) => (
            <p key={`${says} ${i}`} className="warn">
              {says}
            </p>
          ))}
      </header>
      {sections.map((section) => {
        const looked = section.steps.filter((step) => stepState(step, inspection, findings) !== undefined);
        if (looked.length === 0) return null;
        const here = findings.filter((f) => section.steps.some((step) => belongsTo(f, step)));
        const good = looked.filter((step) => stepState(step, inspection, findings) === 'good');
        return (
          <section key={section.id}>
            <h3>{section.title}</h3>
            {here.map((f, i) => (
              <Told key={`${findingInWords(f)} ${i}`} finding={f} sheet={sheet} />
            ))}
            {good.length > 0 && (
              <p className="soft">
                Nothing found: {[...new Set(good.map((step) => partInWords(step.part)))].join(', ')}.
              </p>
            )}
          </section>
        );
      })}
      {elsewhere.length > 0 && (
        <section>
          <h3>Also found</h3>
          {elsewhere.map((f, i) => (
            <Told key={`${findingInWords(f)} ${i}`} finding={f} sheet={sheet} />
          ))}
        </section>
      )}
      {measures.length > 0 && (
        <section>
          <h3>Measured</h3>
          {measures.map((m) => (
            <p key={m.id}>
              {m.label}: <span className="num">{m.text}</span>
            </p>
          ))}
        </section>
      )}
      <section>
        <h3>Treatments</h3>
        <Treatments sheet={sheet} />
      </section>
      <section>
        <h3>Not examined</h3>
        {missing.length === 0 ? (
          <p>Everything on the list was examined.</p>
        ) : (
          missing.map((m) => (
            <p key={m.section}>
              {m.section}: {[...new Set(m.steps.map((s) => partInWords(s.part)))].join(', ')}
            </p>
          ))
        )}
      </section>
      <p className="soft">
        {body.inspected ? '' : 'The inspection is not finished. '}This states what was seen on the day, by eye
        and simple gauges, without taking the piece apart; it is not an appraisal for tax, court or insurance,
        which may need a licensed appraiser.
      </p>
    </article>
  );
}

/** A finding with the picture it is pinned on, a ring around the place. */
function Told({ finding, sheet }: { finding: Finding; sheet: PieceSheet }) {
  const picture = sheet.pictures.find((p) => p.id === finding.pin?.picture);
  return (
    <div className="told">
      <p>{findingInWords(finding)}</p>
      {picture && finding.pin && (
        <span className="surface">
          <img
            src={`/api/v1/pictures/${picture.hash}/thumb`}
            alt={picture.caption || 'Picture of the place'}
          />
          <span
            className="pin ring"
            style={{ left: `${finding.pin.x * 100}%`, top: `${finding.pin.y * 100}%` }}
          />
        </span>
      )}
    </div>
  );
}
