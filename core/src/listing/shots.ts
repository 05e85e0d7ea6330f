/** Pictures a buyer looks for, by construction; which of them a piece has, and which to take next. */
import type { Finding } from '../condition/index.ts';
import { findingInWords } from '../condition/index.ts';
import type { View } from '../drawing/index.ts';
import type { Construction } from '../reference/index.ts';

export interface Shot {
  readonly id: string;
  readonly ask: string;
}
const shot = (id: string, ask: string): Shot => ({ id, ask });

const FOLDER = [
  shot('mark-side', 'Open, mark side'),
  shot('pile-side', 'Open, the other side'),
  shot('closed', 'Closed'),
  shot('tang', 'The tang stamp, close up'),
  shot('back', 'The back, spring and liners'),
];
const SHOTS: Readonly<Record<Construction, readonly Shot[]>> = {
  slipjoint: FOLDER,
  'locking-folder': [
    ...FOLDER,
    shot('lock', 'The lock engaged, close up'),
    shot('clip', 'The clip and its screws'),
  ],
  automatic: [...FOLDER, shot('lock', 'The button and the safety, close up')],
  balisong: [...FOLDER, shot('lock', 'The latch, close up')],
  'multi-tool': [
    shot('closed', 'Closed'),
    shot('mark-side', 'All tools out, mark side'),
    shot('pile-side', 'All tools out, the other side'),
    shot('tang', 'The stamps, close up'),
  ],
  fixed: [
    shot('mark-side', 'The whole, mark side'),
    shot('pile-side', 'The whole, the other side'),
    shot('tang', 'The mark, close up'),
    shot('handle', 'The handle from above and below'),
    shot('sheath', 'The sheath, both sides'),
  ],
  bayonet: [
    shot('mark-side', 'The whole, mark side'),
    shot('pile-side', 'The whole, the other side'),
    shot('tang', 'The ricasso, both sides, close up'),
    shot('pommel', 'Pommel, press stud and muzzle ring'),
    shot('sheath', 'Scabbard and frog'),
  ],
};

/** Words of a caption by which a picture stands for a shot. */
const CAPTIONS: Readonly<Record<string, RegExp>> = {
  'mark-side': /mark side|front|obverse/i,
  'pile-side': /pile side|back side|other side|reverse/i,
  closed: /closed|folded/i,
  tang: /tang|stamp|mark(?! side)|ricasso|close up/i,
  back: /\bback\b(?! side)|spine|spring|liner/i,
  lock: /lock|latch|button|safety/i,
  clip: /clip/i,
  handle: /handle|grip/i,
  sheath: /sheath|scabbard|frog/i,
  pommel: /pommel|muzzle|stud/i,
};

/** How a shot is drawn: from where, and the parts it is about; the whole where none is named. */
export interface DrawnShot {
  readonly view: View;
  readonly parts: readonly string[];
}
const DRAWN: Readonly<Record<string, DrawnShot>> = {
  'mark-side': { view: 'open', parts: [] },
  'pile-side': { view: 'pile-side', parts: [] },
  closed: { view: 'mark-side', parts: [] },
  tang: { view: 'tang', parts: [] },
  back: { view: 'from-above', parts: [] },
  lock: { view: 'mark-side', parts: ['lock'] },
  clip: { view: 'pile-side', parts: ['clip'] },
  handle: { view: 'open', parts: ['grip', 'scales'] },
  sheath: { view: 'mark-side', parts: ['sheath', 'scabbard', 'frog'] },
  pommel: { view: 'open', parts: ['pommel', 'press-stud', 'ring'] },
};
/** A shot that the drawing does not know is the whole piece. */
export const drawnShot = (id: string): DrawnShot => DRAWN[id] ?? { view: 'open', parts: [] };

export interface PicturesOfPiece {
  readonly construction: Construction;
  readonly pictures: readonly { readonly id: string; readonly caption: string }[];
  readonly findings: readonly Finding[];
}
export interface ShotList {
  readonly shots: readonly (Shot & { readonly done: boolean })[];
  /** the first that is missing */
  readonly next: Shot | undefined;
  /** findings that no picture shows, in words */
  readonly unseen: readonly string[];
}

/** One picture stands for one shot; a finding is shown where it is pinned on a picture. */
export function shotList({ construction, pictures, findings }: PicturesOfPiece): ShotList {
  const left = [...pictures];
  const shots = SHOTS[construction].map((wanted) => {
    const at = left.findIndex((p) => CAPTIONS[wanted.id]?.test(p.caption));
    if (at >= 0) left.splice(at, 1);
    return { ...wanted, done: at >= 0 };
  });
  return {
    shots,
    next: shots.find((s) => !s.done),
    unseen: findings
      .filter((f) => f.pin?.picture == null || !pictures.some((p) => p.id === f.pin?.picture))
      .map((f) => findingInWords(f)),
  };
}
