/** The clock of the server that is being filled, where it has one that can be set (scripts/setup/clock.mjs). */
import { writeFileSync } from 'node:fs';

/** longer than a server takes to look at it again */
const SEEN_AFTER_MS = 25;

export class Clock {
  constructor(
    readonly file: string,
    readonly today: Date,
  ) {}

  /** @param daysAgo 0 is now */
  async set(daysAgo: number): Promise<void> {
    writeFileSync(this.file, String(-daysAgo * 86_400_000));
    await new Promise((resolve) => setTimeout(resolve, SEEN_AFTER_MS));
  }

  day(daysAgo: number): string {
    return new Date(this.today.getTime() - daysAgo * 86_400_000).toISOString().slice(0, 10);
  }
}
