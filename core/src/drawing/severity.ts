/** Small drawings of how bad a defect is, to hold the piece against: the same every time. */
import { random } from '../random/index.ts';
import { lookOf, SEVERITIES, type Defect, type Severity } from '../condition/index.ts';

export const SEVERITY_BOX = { width: 56, height: 30 } as const;
/** Share of the box that is touched, trace to severe. */
const REACH = [0.06, 0.16, 0.34, 0.58, 0.9] as const;

export interface SeverityDrawing {
  /** the sound surface */
  readonly ground: string;
  /** what is wrong with it, drawn as lines */
  readonly lines: string;
  /** what is wrong with it, filled */
  readonly patches: string;
}

export function drawSeverity(defect: Defect, severity: Severity): SeverityDrawing {
  const { width: w, height: h } = SEVERITY_BOX;
  const rank = SEVERITIES.indexOf(severity);
  const reach = REACH[rank] ?? 0.5;
  const { next } = random(17 + rank);
  const at = (low: number, high: number) => (low + (high - low) * next()).toFixed(1);
  const plate = `M2 4H${w - 2}V${h - 4}H2Z`;
  const times = <T>(n: number, make: (i: number) => T) => Array.from({ length: n }, (_, i) => make(i));
  switch (lookOf(defect)) {
    case 'line':
      return {
        ground: plate,
        lines: times(1 + rank * 2, () => {
          const y = Number(at(6, h - 6));
          const x = Number(at(4, w - 8 - reach * 30));
          return `M${x} ${y}l${(6 + reach * 38).toFixed(1)} ${at(-3, 3)}`;
        }).join(''),
        patches: '',
      };
    case 'notch': {
      const depth = 1.5 + reach * 12;
      const count = Math.min(4, rank + 1);
      const teeth = times(count, (i) => {
        const x = ((i + 0.7) * w) / (count + 0.6);
        return `M${(x - depth * 0.5).toFixed(1)} ${h - 6}L${x.toFixed(1)} ${(h - 6 - depth).toFixed(1)}L${(x + depth * 0.5).toFixed(1)} ${h - 6}Z`;
      });
      return { ground: `M2 5H${w - 2}V${h - 6}H2Z`, lines: '', patches: teeth.join('') };
    }
    case 'spots':
      return {
        ground: plate,
        lines: '',
        patches: times(Math.round(2 + reach * 34), () => {
          const r = Number(at(0.7, 1 + reach * 2.2));
          return `M${at(5, w - 5)} ${at(7, h - 7)}m${-r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
        }).join(''),
      };
    case 'area': {
      const rim = (reach * (h - 8)) / 2;
      return {
        ground: plate,
        lines: '',
        patches:
          reach > 0.8
            ? plate
            : `M2 4H${w - 2}V${h - 4}H2ZM${2 + rim * 2} ${4 + rim}V${h - 4 - rim}H${w - 2 - rim * 2}V${4 + rim}Z`,
      };
    }
    case 'shift': {
      const off = 1 + reach * 9;
      return {
        ground: `M2 4H${w / 2 - 1}V${h - 4}H2Z`,
        lines: `M${w / 2 + off} ${4 + off / 2}H${w - 2}V${h - 4 + Math.min(3, off / 2)}H${w / 2 + off}Z`,
        patches: '',
      };
    }
    case 'degree':
      return {
        ground: plate,
        lines: '',
        patches: `M2 4H${(2 + (w - 4) * Math.max(0.08, reach)).toFixed(1)}V${h - 4}H2Z`,
      };
  }
}
