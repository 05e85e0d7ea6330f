/** The shop's own type for paper, and a wider face for the few signs it has none of. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import * as fontkit from 'fontkit';

const require = createRequire(import.meta.url);
const folder = (name: string) => dirname(require.resolve(`${name}/package.json`));
const archivo = folder('@expo-google-fonts/archivo');
const splineMono = folder('@expo-google-fonts/spline-sans-mono');
const dejavu = join(folder('dejavu-fonts-ttf'), 'ttf');

export type Voice = 'text' | 'strong' | 'figures';
const FACES: Readonly<Record<Voice, { readonly own: string; readonly wide: string }>> = {
  text: {
    own: join(archivo, '400Regular', 'Archivo_400Regular.ttf'),
    wide: join(dejavu, 'DejaVuSans.ttf'),
  },
  strong: {
    own: join(archivo, '600SemiBold', 'Archivo_600SemiBold.ttf'),
    wide: join(dejavu, 'DejaVuSans-Bold.ttf'),
  },
  figures: {
    own: join(splineMono, '400Regular', 'SplineSansMono_400Regular.ttf'),
    wide: join(dejavu, 'DejaVuSansMono.ttf'),
  },
};

const opened = new Map<string, fontkit.Font>();
function fontAt(file: string): fontkit.Font {
  const kept = opened.get(file);
  if (kept) return kept;
  const font = fontkit.openSync(file);
  if (!('hasGlyphForCodePoint' in font)) throw new Error(`${file} holds more than one font`);
  opened.set(file, font);
  return font;
}

/** The file of the face that has every sign of the text: the shop's own wherever it can. */
export function faceFor(voice: Voice, text: string): string {
  const { own, wide } = FACES[voice];
  const font = fontAt(own);
  const all = [...text].every(
    (sign) => /\s/.test(sign) || font.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0),
  );
  return all ? own : wide;
}

/** A line of text as outlines for a picture: the path in a unit square of em, baseline at 0, and its width in em. */
export function outlineOf(voice: Voice, text: string): { readonly path: string; readonly width: number } {
  const font = fontAt(faceFor(voice, text));
  const em = 1 / font.unitsPerEm;
  const run = font.layout(text);
  let at = 0;
  const paths = run.glyphs.map((glyph, i) => {
    const moved = glyph.path
      .scale(em, -em)
      .translate(at * em, 0)
      .toSVG();
    at += run.positions[i]?.xAdvance ?? 0;
    return moved;
  });
  return { path: paths.join(''), width: at * em };
}
