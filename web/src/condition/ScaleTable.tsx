/** A grading scale as a table one can read: where each grade begins, what holds it down, what age forgives. */
import { Button } from '@mui/material';
import { defectInWords, type ScaleRules } from '@jutbank/core/condition';
import { sentence } from '../parts/words.ts';
import { GradeSelect, NewCap } from './NewRule.tsx';
import { NumberCell, replaced, Says, type RuleTableProps } from './RuleCells.tsx';

export function ScaleTable({ rules, wrong, may, onChange }: RuleTableProps<ScaleRules>) {
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
            {may && (
              <th>
                <span className="visually-hidden">Take it out</span>
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rules.caps.map((cap, i) => (
            <tr key={cap.id}>
              <td>
                {cap.defects.map((d) => defectInWords(d)).join(' or ')}
                {cap.parts && <span className="soft"> on {cap.parts.join(', ')}</span>}
                {cap.from !== undefined && <span className="soft">, {cap.from} or worse</span>}
              </td>
              <td>
                <GradeSelect
                  label={`${cap.id} caps at`}
                  rules={rules}
                  value={cap.to}
                  may={may}
                  onChange={(to) => put({ caps: replaced(rules.caps, i, { ...cap, to }) })}
                />
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
                  <Button
                    variant="text"
                    className="quiet"
                    aria-label={`Without the cap ${cap.id}`}
                    onClick={() => put({ caps: rules.caps.filter((_, k) => k !== i) })}
                  >
                    ×
                  </Button>
                </td>
              )}
            </tr>
          ))}
          {rules.completenessCaps.map((cap, i) => (
            <tr key={cap.id}>
              <td>
                {sentence(cap.item)}: {cap.states.map(sentence).join(', ').toLowerCase()}
              </td>
              <td>
                <GradeSelect
                  label={`${cap.id} caps at`}
                  rules={rules}
                  value={cap.to}
                  may={may}
                  onChange={(to) =>
                    put({ completenessCaps: replaced(rules.completenessCaps, i, { ...cap, to }) })
                  }
                />
              </td>
              <td className="soft">{cap.says}</td>
              {may && <td />}
            </tr>
          ))}
        </tbody>
      </table>
      {may && <NewCap rules={rules} onAdd={(cap) => put({ caps: [...rules.caps, cap] })} />}
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
