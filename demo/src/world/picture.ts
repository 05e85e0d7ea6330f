/** Pictures of pieces: the drawn piece on paper beside a rule, with light, a shadow and a little dust. */
import sharp from 'sharp';
import { cardView, drawPiece, svgShapes, type DrawingRecipe } from '@jutbank/core/drawing';
import type { Random } from '@jutbank/core/random';

const WIDTH = 1040;
const HEIGHT = 715;
/** Share of the picture's width that the piece fills. */
const FILLED = 0.86;

const viewOf = (recipe: DrawingRecipe, closeUp: boolean) =>
  drawPiece(recipe, closeUp ? 'tang' : cardView(recipe));
/** px of the picture for a millimetre of the piece. */
function perMmOf(recipe: DrawingRecipe, closeUp: boolean): number {
  const { widthMm, heightMm } = viewOf(recipe, closeUp);
  return Math.min((WIDTH * FILLED) / widthMm, (HEIGHT - 260) / heightMm);
}
/** What a pixel of the picture shows of the piece, mm. */
export const mmPerPixelOf = (recipe: DrawingRecipe, closeUp: boolean): number => 1 / perMmOf(recipe, closeUp);

export async function drawPicture(recipe: DrawingRecipe, chance: Random, closeUp = false): Promise<Buffer> {
  const drawing = viewOf(recipe, closeUp);
  const perMm = perMmOf(recipe, closeUp);
  const tilt = chance.between(-3, 3);
  const dust = Array.from(
    { length: 60 },
    () =>
      `<circle cx="${chance.between(0, WIDTH).toFixed(0)}" cy="${chance.between(0, HEIGHT).toFixed(0)}" r="${chance.between(0.6, 2.2).toFixed(1)}" fill="#6a6255" opacity="${chance.between(0.1, 0.4).toFixed(2)}"/>`,
  ).join('');
  const ticks = Array.from({ length: Math.floor((WIDTH - 200) / perMm) + 1 }, (_, mm) => {
    const x = 100 + mm * perMm;
    const tall = mm % 10 === 0 ? 42 : mm % 5 === 0 ? 28 : 16;
    return `M${x.toFixed(1)} ${HEIGHT - 120}v${tall}`;
  }).join('');
  const middle = `translate(${-(drawing.left + drawing.widthMm / 2)} ${-(drawing.top + drawing.heightMm / 2)})`;
  const silhouette = drawing.parts
    .flatMap((part) => part.shapes.filter((shape) => shape.kind === 'area'))
    .map((shape) => `<path d="${shape.d}"/>`)
    .join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
    <defs><radialGradient id="light" cx="${chance.between(0.25, 0.6).toFixed(2)}" cy="${chance.between(0.2, 0.5).toFixed(2)}" r="0.9">
      <stop offset="0" stop-color="#f3ecdd"/><stop offset="1" stop-color="#c4b79d"/></radialGradient>
      <filter id="soft" x="-10%" y="-40%" width="120%" height="180%"><feGaussianBlur stdDeviation="1.6"/></filter></defs>
    <rect width="${WIDTH}" height="${HEIGHT}" fill="url(#light)"/>${dust}
    <rect x="80" y="${HEIGHT - 122}" width="${WIDTH - 160}" height="72" fill="#dfe2e2" stroke="#6c7072"/>
    <path d="${ticks}" stroke="#22262a" stroke-width="2"/>
    <g transform="translate(${WIDTH / 2} ${(HEIGHT - 140) / 2}) rotate(${tilt.toFixed(1)}) scale(${perMm.toFixed(4)}) ${middle}">
      <g transform="translate(1.2 1.8)" opacity="0.3" filter="url(#soft)" fill="#1c1a17">${silhouette}</g>${svgShapes(drawing, { perMm: perMm / 1.6 })}
    </g></svg>`;
  return sharp(Buffer.from(svg)).jpeg({ quality: 84 }).toBuffer();
}
