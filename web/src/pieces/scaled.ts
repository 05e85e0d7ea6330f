import type { PictureRecord } from '@jutbank/contract/pieces';

/** A picture of which somebody measured how large a pixel is. */
export type Scaled = PictureRecord & { readonly mmPerPixel: number };
export const isScaled = (picture: PictureRecord): picture is Scaled => picture.mmPerPixel !== null;

/** How much of the world the picture is wide, mm. */
export const across = (picture: Scaled): number => picture.width * picture.mmPerPixel;
