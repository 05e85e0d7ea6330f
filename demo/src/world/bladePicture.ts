/** A blade open on the measuring board, beside a rule and a card: drawn true to scale, so that it can be measured. */
import sharp from 'sharp';
import { bladeOutline, type BladeSize, type BladeWear } from '@jutbank/core/drawing';
import type { Random } from '@jutbank/core/random';

const WIDTH = 1500;
const HEIGHT = 1100;
const RULE_MM = 120;

export async function drawBladePicture(size: BladeSize, wear: BladeWear, chance: Random): Promise<Buffer> {
  const perMm = Math.min(9.5, 1150 / Math.max(size.length, RULE_MM));
  const turned = chance.between(-5, 5);
  const outline = bladeOutline(size, wear, 160)
    .map((p) => `${(p.x * perMm).toFixed(2)},${(p.y * perMm).toFixed(2)}`)
    .join(' ');
  const left = 150;
  const ticks = Array.from({ length: RULE_MM + 1 }, (_, mm) => {
    const tall = mm % 10 === 0 ? 46 : mm % 5 === 0 ? 30 : 18;
    return `M${(left + mm * perMm).toFixed(2)} ${HEIGHT - 130}v${tall}`;
  }).join('');
  const numbers = Array.from(
    { length: RULE_MM / 10 + 1 },
    (_, i) =>
      `<text x="${(left + i * 10 * perMm).toFixed(1)}" y="${HEIGHT - 54}" font-size="24" text-anchor="middle" font-family="sans-serif">${i * 10}</text>`,
  ).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
    <defs>
      <linearGradient id="light" x1="0" y1="0" x2="1" y2="0.5"><stop offset="0" stop-color="#9ab3a0"/><stop offset="1" stop-color="#7f9a86"/></linearGradient>
      <linearGradient id="steel" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#c8cccf"/><stop offset="1" stop-color="#dfe3e5"/></linearGradient>
    </defs>
    <rect width="${WIDTH}" height="${HEIGHT}" fill="url(#light)"/>
    <g transform="translate(${left} 190) rotate(${turned.toFixed(2)})"><polygon points="${outline}" fill="url(#steel)"/></g>
    <rect x="${left - 30}" y="${HEIGHT - 132}" width="${(RULE_MM * perMm + 60).toFixed(1)}" height="96" fill="#ece7d8"/>
    <path d="${ticks}" stroke="#22262a" stroke-width="2"/>${numbers}
  </svg>`;
  const noise = { type: 'gaussian' as const, mean: 0, sigma: 5 };
  const grain = await sharp({
    create: { width: WIDTH, height: HEIGHT, channels: 3, background: '#808080', noise },
  })
    .png()
    .toBuffer();
  return sharp(Buffer.from(svg))
    .composite([{ input: grain, blend: 'soft-light' }])
    .jpeg({ quality: 88 })
    .toBuffer();
}
