/** The condition index as a table one can read: what every finding costs, its numbers changed in place. */
import { Button } from '@mui/material';
import { defectInWords, SEVERITIES, type IndexRules } from '@jutbank/core/condition';
import { sentence } from '../parts/words.ts';
import { NewDeduction } from './NewRule.tsx';
import { MeasureCell, NumberCell, replaced, type RuleTableProps } from './RuleCells.tsx';

const SHARE_WORDS = 'share of the condition lost, 0 to 0.98';

export function IndexTable({ rules, wrong, may, onChange }: RuleTableProps<IndexRules>) {
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
        of its share. Age forgives: {rules.wear.map((d) => defectInWords(d)).join(', ')}.
      </p>
      <div className="scroll">
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
              {may && (
                <th>
                  <span className="visually-hidden">Take it out</span>
                </th>
              )}
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
                  <td>
                    {rule.byMeasure && (
                      <MeasureCell
                        label={`${name}, measured`}
                        points={rule.byMeasure}
                        wrong={rule.byMeasure
                          .flatMap((_, k) => [`/${k}/0`, `/${k}/1`])
                          .map((at) => wrong(`/deductions/${i}/byMeasure${at}`))
                          .find((message) => message !== undefined)}
                        may={may}
                        onChange={(byMeasure) =>
                          onChange({
                            ...rules,
                            deductions: replaced(rules.deductions, i, { ...rule, byMeasure }),
                          })
                        }
                      />
                    )}
                  </td>
                  {may && (
                    <td>
                      {rule.parts && (
                        <Button
                          variant="text"
                          className="quiet"
                          aria-label={`Without the rule for ${name}`}
                          onClick={() =>
                            onChange({ ...rules, deductions: rules.deductions.filter((_, k) => k !== i) })
                          }
                        >
                          ×
                        </Button>
                      )}
                    </td>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {may && (
        <NewDeduction
          rules={rules}
          onAdd={(rule) => onChange({ ...rules, deductions: [...rules.deductions, rule] })}
        />
      )}
    </>
  );
}
