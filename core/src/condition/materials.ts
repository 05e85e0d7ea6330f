/**
 * What a handle's or a sheath's material asks for, by what it is: natural fibre, horn and old plastics age differently
 * (engines.md, Condition). A material is known by the words of the reference; whether it gives off vapour the reference
 * says itself.
 */
const ADVICE: readonly { readonly called: RegExp; readonly advice: string }[] = [
  {
    called: /\b(fibre|paper)\b/i,
    advice: 'Pressed fibre swells with water and warps as it dries: wipe it dry, no soaking in water or oil.',
  },
  {
    called: /\b(horn|stag|antler|tortoise\w*)\b/i,
    advice:
      'Horn moves with the moisture of the air and insects eat it: no heat, no water; look for fresh holes.',
  },
  {
    called: /\b(bone|ivory|shell|pearl)\b/i,
    advice: 'Bone and shell take up oil, dye and rust for good: dry cloth only, and nothing acid.',
  },
  {
    called: /\bleather\b/i,
    advice:
      'Leather holds acid and moisture: the blade is kept outside it, and dressing darkens it for good.',
  },
  {
    called: /\b(rubber|ebonite)\b/i,
    advice:
      'Hard rubber fades with light and hot water, and its sulphur tarnishes silver and brass beside it.',
  },
  {
    called: /\b(wood|ebony|walnut|oak|beech|birch|olive|rosewood|maple|ash)\b/i,
    advice: 'Wood takes up oil unevenly and loses an old finish to solvent: try it where nobody looks first.',
  },
];
const VAPOUR =
  'It gives off acid vapour that rusts steel, and burns fiercely: no heat, no solvent; ventilate, and keep it apart from other pieces.';

/**
 * @param label the material as the reference calls it, such as "Pressed fibre"
 * @param vapour the reference says that it gives off vapour
 * @returns absent for materials that ask for nothing of their own, such as steel
 */
export const materialAdvice = (label: string, vapour: boolean): string | undefined =>
  vapour ? `${label}: ${VAPOUR}` : ADVICE.find((a) => a.called.test(label))?.advice;
