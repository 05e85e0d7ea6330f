/** What can be seen of its state in two minutes: a tap for what is there, again for worse; and what comes with it. */
import { CONDITION_STEPS, QUICK_LOOK, type QuickLook } from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import { mayHaveSheath, type WithIt } from './atTable.ts';

const WITH_IT = { box: 'Its box', papers: 'Papers', sheath: 'Its sheath' } as const;

export function QuickLookTaps({
  construction,
  look,
  onLook,
  withIt,
  onWithIt,
}: {
  construction: Construction;
  look: QuickLook;
  onLook: (look: QuickLook) => void;
  withIt: WithIt;
  onWithIt: (withIt: WithIt) => void;
}) {
  return (
    <section>
      <h2>Tap what is there, again for worse; what is with it at the end</h2>
      <div className="toggles">
        {QUICK_LOOK.filter((q) => q.for === undefined || q.for.includes(construction)).map((q) => {
          const level = look[q.id] ?? 0;
          const levels = q.findings.length;
          return (
            <Toggle
              key={q.id}
              label={q.label}
              level={level}
              told={level === 0 ? 'none' : levels === 1 ? 'yes' : (CONDITION_STEPS[level - 1] ?? '')}
              onTap={() => onLook({ ...look, [q.id]: (level + 1) % (levels + 1) })}
            />
          );
        })}
        {(['box', 'papers', 'sheath'] as const)
          .filter((item) => item !== 'sheath' || mayHaveSheath(construction))
          .map((item) => (
            <Toggle
              key={item}
              label={WITH_IT[item]}
              level={withIt[item] ? 1 : 0}
              told={withIt[item] ? 'original' : 'none'}
              onTap={() => onWithIt({ ...withIt, [item]: !withIt[item] })}
            />
          ))}
      </div>
    </section>
  );
}

function Toggle({
  label,
  level,
  told,
  onTap,
}: {
  label: string;
  level: number;
  told: string;
  onTap: () => void;
}) {
  return (
    <button type="button" className="toggle" data-level={level} aria-pressed={level > 0} onClick={onTap}>
      {label}
      <small>{told}</small>
    </button>
  );
}
