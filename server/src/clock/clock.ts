/** The day it is. */
import { asDay, isoOf } from '@jutbank/core/dates';

export const todayIso = (): string => isoOf(asDay(Math.floor(Date.now() / 86_400_000)));

const DAY_MS = 86_400_000;
/** The day so many days after another, both ISO days. */
export const addDays = (day: string, days: number): string =>
  isoOf(asDay(Math.floor(Date.parse(day) / DAY_MS) + days));
