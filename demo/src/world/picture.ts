/** Drawn pictures of pieces: an outline on paper beside a rule, with light and a little dust. */
import sharp from 'sharp';
import { drawOutline, type OutlineTraits, type Paint } from '@jutbank/core/drawing';
import type { Construction } from '@jutbank/core/reference';
import type { Random } from '@jutbank/core/random';

const HANDLES: Record<string, string> = {
  horn: '#5f4a33',
  fibre: '#3a3f3d',
  bone: '#d9c9a3',
  ebony: '#2a2523',
  celluloid: '#7d2f2a',
  steel: '#a9adb0',
  laminate: '#55605c',
  carbon: '#2c2f33',
  walnut: '#6a4326',
  beech: '#b48a5a',
  resin: '#38302b',
  'curly-birch': '#c79b5c',
  'bog-oak': '#2f2a26',
  reindeer: '#cfc4b1',
};
const BLADES: Record<string, string> = {
  black: '#3b3e42',
  blued: '#37465a',
  phosphated: '#5a5e5b',
  stonewash: '#9da1a4',
};
const WIDTH = 1040;
const HEIGHT = 715;

export interface Subject {
  readonly construction: Construction;
  readonly handle: string | undefined;
  readonly finish: string | undefined;
  readonly traits: OutlineTraits;
  /** millimetres over all */
  readonly length: number;
}

const scaleFor = (closeUp: boolean) => (closeUp ? 13.6 : 7.2);
/** What a pixel of the drawn picture shows of the piece. */
export const mmPerPixelOf = ({ length }: { readonly length: number }, closeUp: boolean): number =>
  length / (106 * scaleFor(closeUp));

export async function drawPicture(subject: Subject, chance: Random, closeUp = false): Promise<Buffer> {
  const paint: Record<Paint, string> = {
    handle: HANDLES[subject.handle ?? ''] ?? '#6b5a45',
    metal: '#b9bcbd',
    blade: BLADES[subject.finish ?? ''] ?? '#cfd3d4',
    line: '#22262a',
    none: 'none',
  };
  const scale = scaleFor(closeUp);
  const tilt = chance.between(-4, 4);
  const shapes = drawOutline(subject.construction, subject.traits)
    .map(
      (s) =>
        `<path d="${s.d}" fill="${paint[s.fill]}" stroke="#22262a" stroke-width="${s.fill === 'none' ? 0.9 : 0.5}"/>`,
    )
    .join('');
  const dust = Array.from(
    { length: 60 },
    () =>
      `<circle cx="${chance.between(0, WIDTH).toFixed(0)}" cy="${chance.between(0, HEIGHT).toFixed(0)}" r="${chance.between(0.6, 2.2).toFixed(1)}" fill="#6a6255" opacity="${chance.between(0.1, 0.4).toFixed(2)}"/>`,
  ).join('');
  // drawn at one length for the picture's 120 units, so that the rule beside it is true
  const mmPerPixel = mmPerPixelOf(subject, closeUp);
  const ticks = Array.from({ length: Math.floor((WIDTH - 200) * mmPerPixel) + 1 }, (_, mm) => {
    const x = 100 + mm / mmPerPixel;
    const tall = mm % 10 === 0 ? 42 : mm % 5 === 0 ? 28 : 16;
    return `M${x.toFixed(1)} ${HEIGHT - 120}v${tall}`;
  }).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
    <defs><radialGradient id="light" cx="${chance.between(0.25, 0.6).toFixed(2)}" cy="${chance.between(0.2, 0.5).toFixed(2)}" r="0.9">
      <stop offset="0" stop-color="#f3ecdd"/><stop offset="1" stop-color="#c4b79d"/></radialGradient></defs>
    <rect width="${WIDTH}" height="${HEIGHT}" fill="url(#light)"/>${dust}
    <rect x="80" y="${HEIGHT - 122}" width="${WIDTH - 160}" height="72" fill="#dfe2e2" stroke="#6c7072"/>
    <path d="${ticks}" stroke="#22262a" stroke-width="2"/>
    <g transform="translate(${WIDTH / 2} ${HEIGHT / 2 - 70}) rotate(${tilt.toFixed(1)}) scale(${scale}) translate(${closeUp ? -24 : -60} -22)">
      <g transform="translate(1.2 1.8)" opacity="0.18"><rect x="7" y="11" width="106" height="24" rx="6" fill="#1c1a17"/></g>${shapes}
    </g></svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 84 }).toBuffer();
}
