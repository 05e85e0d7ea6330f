/** The day it is. */
import { asDay, isoOf } from '@jutbank/core/dates';

export const todayIso = (): string => isoOf(asDay(Math.floor(Date.now() / 86_400_000)));
