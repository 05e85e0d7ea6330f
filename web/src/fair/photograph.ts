/** A photograph from the phone, made small enough to wait on it and to go through a bad connection. */
const LONGEST_SIDE = 1800;
const QUALITY = 0.85;

/** Size within the longest side, never larger than it was. */
export function fitted(
  width: number,
  height: number,
  longest = LONGEST_SIDE,
): { width: number; height: number } {
  const scale = Math.min(1, longest / Math.max(width, height, 1));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}

/** The picture as JPEG; as it was taken where this browser cannot read it, for then the server may. */
export async function shrunk(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file);
    const { width, height } = fitted(picture.width, picture.height);
    const canvas = document.createElement('canvas');
    canvas.width = width;
    canvas.height = height;
    canvas.getContext('2d')?.drawImage(picture, 0, 0, width, height);
    picture.close();
    const small = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY));
    return small ?? file;
  } catch {
    return file;
  }
}
