/** What papers are made of beside text: days in words, codes, pictures as paper takes them. */
import QRCode from 'qrcode';
import sharp from 'sharp';

/** @param instant or day, ISO 8601 */
export const dayInWords = (instant: string): string =>
  new Date(instant).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });

export interface PaperPicture {
  readonly bytes: Buffer;
  readonly width: number;
  readonly height: number;
}

/** Paper knows no WebP. */
export async function jpegOf(bytes: Buffer): Promise<PaperPicture> {
  const { data, info } = await sharp(bytes).jpeg({ quality: 84 }).toBuffer({ resolveWithObject: true });
  return { bytes: data, width: info.width, height: info.height };
}

export const qrOf = (address: string): Promise<Buffer> =>
  QRCode.toBuffer(address, { margin: 0, width: 320, errorCorrectionLevel: 'M' });
