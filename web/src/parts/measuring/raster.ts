import type { Raster } from '@jutbank/core/imaging';

/**
 * A stored picture as its pixels.
 * @param hash of the picture as it was taken
 * @throws where it cannot be fetched, or this browser draws none
 */
export async function rasterOf(hash: string): Promise<Raster> {
  const response = await fetch(`/api/v1/pictures/${hash}/full`);
  if (!response.ok) throw new Error('This picture cannot be read any more.');
  const bitmap = await createImageBitmap(await response.blob());
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser cannot read pictures.');
  context.drawImage(bitmap, 0, 0);
  const { data, width, height } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  return { data, width, height };
}
