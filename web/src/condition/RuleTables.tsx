/** A rule document as a table one can read, with its numbers to be changed in place. */
import { useState } from 'react';
import {
  defectInWords,
  SEVERITIES,
  type Cap,
  type IndexRules,
  type RuleDocument,
  type ScaleRules,
} from '@jutbank/core/condition';
import { sentence } from '../parts/words.ts';

interface Props<T> {
  readonly rules: T;
  /** what is wrong at a place of the document */
  readonly wrong: (pointer: string) => string | undefined;
  readonly may: boolean;
  readonly onChange: (document: RuleDocument) => void;
}

/** A number in a cell; what is typed stays, and counts once it is a number. */
function NumberCell({
  label,
  value,
  wrong,
  may,
  onChange,
}: {
  label: string;
  value: number;
  wrong: string | undefined;
  may: boolean;
  onChange: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string>();
  return (
    <input
      className={wrong === undefined ? 'cell num' : 'cell num bad'}
      aria-label={label}
      aria-invalid={wrong !== undefined}
      title={wrong}
      inputMode="decimal"
      readOnly={!may}
      value={typed ?? String(value)}
      onChange={(e) => {
        setTyped(e.target.value);
        const next = Number(e.target.value.replace(',', '.'));
        if (e.target.value.trim() !== '' && Number.isFinite(next)) onChange(next);
      }}
      onBlur={() => setTyped(undefined)}
    />
  );
}

const replaced = <T,>(list: readonly T[], at: number, item: T): T[] =>
  list.map((x, i) => (i === at ? item : x));

const SHARE_WORDS = 'share of the condition lost, 0 to 0.98';

export function IndexTable({ rules, wrong, may, onChange }: Props<IndexRules>) {
  return (
    <>
      <h2 className="sec">
        {rules.title} <small>100 × what every finding leaves; {SHARE_WORDS}</small>
      </h2>
      <p style={{ margin: '4px 0 10px', fontSize: 13 }}>
        A further finding of the same part and defect counts{' '}
        <NumberCell
          label="Further findings count"
          value={rules.repeats}
          wrong={wrong('/repeats')}
          may={may}
          onChange={(repeats) => onChange({ ...rules, repeats })}
        />{' '}
        of its share. Age forgives: {rules.wear.map(defectInWords).join(', ')}.
      </p>
      <div className="scrolls">
        <table className="grid ruletable">
          <thead>
            <tr>
              <th>Defect</th>
              {SEVERITIES.map((s) => (
                <th key={s} className="r">
                  {sentence(s)}
                </th>
              ))}
              <th>Measured</th>
            </tr>
          </thead>
          <tbody>
            {rules.deductions.map((rule, i) => {
              const name = `${defectInWords(rule.defect)}${rule.parts ? ` on ${rule.parts.join(', ')}` : ''}`;
              return (
                <tr key={name}>
                  <td>{sentence(name)}</td>
                  {SEVERITIES.map((s) => (
                    <td key={s} className="r">
                      <NumberCell
                        label={`${name}, ${s}`}
                        value={rule.bySeverity[s]}
                        wrong={wrong(`/deductions/${i}/bySeverity/${s}`)}
                        may={may}
                        onChange={(cost) =>
                          onChange({
                            ...rules,
                            deductions: replaced(rules.deductions, i, {
                              ...rule,
                              bySeverity: { ...rule.bySeverity, [s]: cost },
                            }),
                          })
                        }
                      />
                    </td>
                  ))}
                  <td className="num soft">
                    {rule.byMeasure?.map(([measure, share]) => `${measure}: ${share}`).join(' · ')}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </>
  );
}

export function ScaleTable({ rules, wrong, may, onChange }: Props<ScaleRules>) {
  const put = (next: Partial<ScaleRules>) => onChange({ ...rules, ...next });
  const unit = rules.measures === 'condition-index' ? 'condition index' : '% of the original finish';
  return (
    <>
      <h2 className="sec">
        {rules.title} <small>version {rules.version}</small>
      </h2>
      <table className="grid ruletable">
        <thead>
          <tr>
            <th>Grade</th>
            <th className="r">from {unit}</th>
          </tr>
        </thead>
        <tbody>
          {rules.grades.map((g, i) => (
            <tr key={g.grade}>
              <td>{sentence(g.grade)}</td>
              <td className="r">
                <NumberCell
                  label={`${sentence(g.grade)} from`}
                  value={g.from}
                  wrong={wrong(`/grades/${i}/from`)}
                  may={may}
                  onChange={(from) => put({ grades: replaced(rules.grades, i, { ...g, from }) })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2 className="sec" style={{ marginTop: 16 }}>
        What holds a grade down <small>whatever the number says</small>
      </h2>
      <table className="grid ruletable caps">
        <thead>
          <tr>
            <th>When</th>
            <th>at most</th>
            <th>In words</th>
            {may && <th />}
          </tr>
        </thead>
        <tbody>
          {rules.caps.map((cap, i) => (
            <tr key={cap.id}>
              <td>
                {cap.defects.map(defectInWords).join(' or ')}
                {cap.parts && <span className="soft"> on {cap.parts.join(', ')}</span>}
                {cap.from !== undefined && <span className="soft">, {cap.from} or worse</span>}
              </td>
              <td>
                <select
                  className="line"
                  aria-label={`${cap.id} caps at`}
                  disabled={!may}
                  value={cap.to}
                  onChange={(e) => put({ caps: replaced(rules.caps, i, { ...cap, to: e.target.value }) })}
                >
                  {rules.grades.map((g) => (
                    <option key={g.grade} value={g.grade}>
                      {sentence(g.grade)}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                <Says
                  cap={cap}
                  may={may}
                  onChange={(says) => put({ caps: replaced(rules.caps, i, { ...cap, says }) })}
                />
              </td>
              {may && (
                <td>
                  <button
                    type="button"
                    className="quiet"
                    aria-label={`Without the cap ${cap.id}`}
                    onClick={() => put({ caps: rules.caps.filter((_, k) => k !== i) })}
                  >
                    ×
                  </button>
                </td>
              )}
            </tr>
          ))}
          {rules.completenessCaps.map((cap) => (
            <tr key={cap.id}>
              <td>
                {sentence(cap.item)}: {cap.states.map(sentence).join(', ').toLowerCase()}
              </td>
              <td>{sentence(cap.to)}</td>
              <td className="soft">{cap.says}</td>
              {may && <td />}
            </tr>
          ))}
        </tbody>
      </table>
      {rules.ageAllowance && (
        <>
          <h2 className="sec" style={{ marginTop: 16 }}>
            Age forgives wear{' '}
            <small>what is left of its cost; damage and alteration are never forgiven</small>
          </h2>
          <table className="grid ruletable">
            <tbody>
              {rules.ageAllowance.map(([years, kept], i, all) => (
                <tr key={years}>
                  <td>
                    at <span className="num">{years}</span> years
                  </td>
                  <td className="r">
                    <NumberCell
                      label={`kept at ${years} years`}
                      value={kept}
                      wrong={wrong(`/ageAllowance/${i}/1`)}
                      may={may}
                      onChange={(share) => put({ ageAllowance: replaced(all, i, [years, share] as const) })}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </>
  );
}

function Says({ cap, may, onChange }: { cap: Cap; may: boolean; onChange: (says: string) => void }) {
  return (
    <input
      className="cell says"
      aria-label={`${cap.id} in words`}
      readOnly={!may}
      defaultValue={cap.says}
      maxLength={200}
      onBlur={(e) => {
        const says = e.target.value.trim();
        if (says !== '' && says !== cap.says) onChange(says);
      }}
    />
  );
}
