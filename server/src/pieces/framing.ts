/** A picture as it goes out: its frame, and a scale bar where it has a scale. */
import sharp from 'sharp';
import { pixelsOf, scaleBar, type Frame } from '@jutbank/core/imaging';
import { outlineOf } from '../pdf/index.ts';

/** Pixels across: nobody who buys looks closer, and a page of them still loads. */
const WIDEST = 1600;
const INK = '#1c2227';
const PAPER = '#fbf8f0';

export interface FramedPicture {
  readonly width: number;
  readonly height: number;
  readonly frame: Frame | null;
  readonly mmPerPixel: number | null;
}

/** @param bytes the whole picture, upright; @returns WebP */
export async function framed(bytes: Buffer, picture: FramedPicture): Promise<Buffer> {
  const part = pixelsOf(picture, picture.frame);
  const width = Math.min(WIDEST, part.width);
  const height = Math.max(1, Math.round((part.height * width) / part.width));
  const bar =
    picture.mmPerPixel === null ? undefined : scaleBar(width, (picture.mmPerPixel * part.width) / width);
  return sharp(bytes)
    .extract(part)
    .resize({ width, height })
    .composite(bar ? [{ input: Buffer.from(barDrawing(width, height, bar)), left: 0, top: 0 }] : [])
    .webp({ quality: 86, effort: 2 })
    .toBuffer();
}

/** In the lower left corner, parted into centimetres, with its length beside it. */
function barDrawing(width: number, height: number, { mm, pixels }: { mm: number; pixels: number }): string {
  const thick = Math.max(4, Math.round(height / 90));
  const size = thick * 3.2;
  const margin = thick * 2;
  const label = outlineOf('strong', `${mm} mm`);
  const [x, y] = [margin + thick, height - margin - thick * 2];
  const parts = mm >= 20 ? mm / 10 : 1;
  const cells = Array.from(
    { length: parts },
    (_, i) =>
      `<rect x="${x + (pixels * i) / parts}" y="${y}" width="${pixels / parts}" height="${thick}" fill="${i % 2 === 0 ? INK : PAPER}"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
    <rect x="${margin}" y="${y - thick * 1.5}" width="${pixels + label.width * size + thick * 3.5}" height="${thick * 4}" fill="${PAPER}" fill-opacity="0.86"/>
    ${cells.join('')}
    <rect x="${x}" y="${y}" width="${pixels}" height="${thick}" fill="none" stroke="${INK}" stroke-width="${thick / 5}"/>
    <path transform="translate(${x + pixels + thick} ${y + size * 0.55}) scale(${size})" d="${label.path}" fill="${INK}"/>
  </svg>`;
}
