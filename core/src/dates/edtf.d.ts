/** The part of the edtf package that core/dates uses; the package ships no types. */
declare module 'edtf' {
  interface Bitmask {
    readonly value: number;
  }
  export interface ExtendedDate {
    readonly type: 'Date' | 'Year' | 'Decade' | 'Century' | 'Season' | 'Interval' | 'List' | 'Set';
    readonly min: number | null;
    readonly max: number | null;
    readonly values: readonly unknown[];
    readonly approximate?: Bitmask;
    readonly uncertain?: Bitmask;
    readonly lower?: ExtendedDate | number | null;
    readonly upper?: ExtendedDate | number | null;
  }
  export default function edtf(text: string): ExtendedDate;
}
