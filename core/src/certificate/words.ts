/** What a certificate says of the inspection, the same on paper and on its check page. */
export interface Inspected {
  readonly inspected: boolean;
  /** absent where that was not asked yet: certificates from before say only whether it was inspected */
  readonly whole?: boolean | undefined;
  readonly faultless?: boolean | undefined;
  readonly findings: readonly string[];
}

export function lookedAt({
  inspected,
  whole = inspected,
  findings,
  faultless = findings.length === 0,
}: Inspected): string {
  if (!inspected) return 'It was not inspected.';
  if (!whole) return 'Not everything was examined.';
  return faultless
    ? 'Everything on the list was examined; no fault was found.'
    : 'Everything on the list was examined.';
}
