/** A rule under a drawing, at its scale. */
export function Rule({ lengthMm, perMm }: { lengthMm: number; perMm: number }) {
  const width = lengthMm * perMm;
  const step = perMm > 1.6 ? 1 : 5;
  const label = perMm > 1.6 ? 20 : 50;
  const marks = Array.from({ length: Math.floor(lengthMm / step) + 1 }, (_, i) => i * step);
  const tall = (mm: number) => (mm % 10 === 0 ? 8 : mm % 5 === 0 ? 5.5 : 3);
  return (
    <svg className="under-rule" width={width + 3} height={26} aria-hidden>
      <path
        d={`M1 1H${width.toFixed(1)}${marks.map((mm) => `M${(1 + mm * perMm).toFixed(1)} 1v${tall(mm)}`).join('')}`}
      />
      {marks
        .filter((mm) => mm % label === 0 && mm * perMm < width - 14)
        .map((mm) => (
          <text key={mm} x={1 + mm * perMm} y={21} textAnchor={mm === 0 ? 'start' : 'middle'}>
            {mm === 0 ? '0 mm' : mm}
          </text>
        ))}
    </svg>
  );
}
