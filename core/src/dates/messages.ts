/**
 * What is said of dates, as messages with named places. Those of other languages stand in their catalogues (core/words);
 * these are here so that a date can be told without them.
 */
type Month = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9 | 10 | 11 | 12;
export interface DateMessages {
  readonly months: Readonly<Record<Month, string>>;
  readonly dates: Readonly<
    Record<'day' | 'month' | 'none' | 'any' | 'until' | 'from' | 'about' | 'sides' | 'gaps', string>
  >;
}
/** Words that can tell dates. */
export interface TellsDates {
  readonly ofDates: DateMessages;
}

export const ENGLISH_DATES: TellsDates = {
  ofDates: {
    months: {
      1: 'Jan',
      2: 'Feb',
      3: 'Mar',
      4: 'Apr',
      5: 'May',
      6: 'Jun',
      7: 'Jul',
      8: 'Aug',
      9: 'Sep',
      10: 'Oct',
      11: 'Nov',
      12: 'Dec',
    },
    dates: {
      day: '{{day}} {{month}} {{year}}',
      month: '{{month}} {{year}}',
      none: 'no date fits',
      any: 'any time',
      until: 'until {{day}}',
      from: 'from {{day}}',
      about: 'about {{date}}',
      sides: '{{from}} to {{to}}',
      gaps: '{{date}} (not every year between)',
    },
  },
};

/** A message of dates with its places filled in. */
export const sayDate = (
  { ofDates }: TellsDates,
  message: keyof DateMessages['dates'],
  values: Readonly<Record<string, string | number>> = {},
): string =>
  ofDates.dates[message].replace(/\{\{(\w+)\}\}/g, (_, name: string) => String(values[name] ?? ''));

export const monthIn = ({ ofDates }: TellsDates, month: number): string =>
  ofDates.months[month as Month] ?? String(month);
