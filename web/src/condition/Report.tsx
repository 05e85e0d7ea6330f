/** The condition report as a page: in the order of inspection, every finding with its picture, what was not looked at. */
import { findingInWords, reportOrder, type Finding, type GradeAnswer } from '@jutbank/core/condition';
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import type { ConditionBody, PieceSheet } from '@jutbank/contract/pieces';
import { useVocabulary } from '../reference/vocabulary.ts';
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
  const order = reportOrder(sheet.intake.construction, inspection, findings);
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
        {!body.inspected && (
          <p className="warn">
            {order.sections.length === 0
              ? 'Nobody has looked at it yet: there is nothing to grade.'
              : 'The inspection is not finished: the grades are of what was looked at so far.'}
          </p>
        )}
        <p hidden={order.sections.length === 0 && order.elsewhere.length === 0}>
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
      {order.sections.map((section) => (
        <section key={section.id}>
          <h3>{section.title}</h3>
          {section.findings.map((f, i) => (
            <Told key={`${findingInWords(f)} ${i}`} finding={f} sheet={sheet} />
          ))}
          {section.nothingFound.length > 0 && (
            <p className="soft">Nothing found: {section.nothingFound.join(', ')}.</p>
          )}
        </section>
      ))}
      {order.elsewhere.length > 0 && (
        <section>
          <h3>Also found</h3>
          {order.elsewhere.map((f, i) => (
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
        {order.notExamined.length === 0 ? (
          <p>Everything on the list was examined.</p>
        ) : (
          order.notExamined.map((m) => (
            <p key={m.section}>
              {m.section}: {m.parts.join(', ')}
            </p>
          ))
        )}
      </section>
      <p className="soft">
        This states what was seen on the day, by eye and simple gauges, without taking the piece apart; it is
        not an appraisal for tax, court or insurance, which may need a licensed appraiser.
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
