/** How many blades and tools are looked at, beside what the bench or the form says. */
import type { Inspection } from '@jutbank/core/condition';
import { MOST_BLADES, MOST_TOOLS, type CountedParts } from '@jutbank/core/pieces';
import type { Construction } from '@jutbank/core/reference';
import { ButtonBase } from '@mui/material';
import { sentence } from '../parts/words.ts';

/** How many blades and tools there are: each is looked at by itself. */
export function Counts({
  construction,
  inspection,
  parts,
  may,
  onChange,
}: {
  construction: Construction;
  inspection: Inspection;
  parts: CountedParts;
  may: boolean;
  onChange: (inspection: Inspection) => void;
}) {
  const kinds = (['blades', 'tools'] as const).filter(
    (kind) => kind === 'blades' || construction === 'multi-tool' || construction === 'slipjoint',
  );
  const { by } = parts;
  const differs = by !== null && kinds.some((kind) => inspection[kind] !== parts[kind]);
  return (
    <div className="counts">
      {kinds.map((kind) => {
        const n = inspection[kind];
        const set = (to: number) => onChange({ ...inspection, [kind]: to });
        return (
          <span key={kind} className="count" role="group" aria-label={sentence(kind)}>
            <span className="soft">{sentence(kind)}</span>
            <ButtonBase
              className="chip"
              aria-label={`One of the ${kind} less`}
              disabled={!may || n <= LEAST[kind]}
              onClick={() => set(n - 1)}
            >
              −
            </ButtonBase>
            <b className="num" aria-live="polite">
              {n}
            </b>
            <ButtonBase
              className="chip"
              aria-label={`One of the ${kind} more`}
              disabled={!may || n >= MOST[kind]}
              onClick={() => set(n + 1)}
            >
              +
            </ButtonBase>
          </span>
        );
      })}
      {differs ? (
        <ButtonBase
          className="chip"
          disabled={!may}
          onClick={() => onChange({ ...inspection, blades: parts.blades, tools: parts.tools })}
        >
          {SAID_BY[by]}: {kinds.map((kind) => `${parts[kind]} ${kind}`).join(', ')}
        </ButtonBase>
      ) : (
        <span className="soft">{by === null ? 'nobody has counted them yet' : SAID_BY[by]}</span>
      )}
    </div>
  );
}
const LEAST = { blades: 1, tools: 0 } as const;
const MOST = { blades: MOST_BLADES, tools: MOST_TOOLS } as const;
const SAID_BY = { bench: 'as counted at the bench', form: 'as its form has them' } as const;
