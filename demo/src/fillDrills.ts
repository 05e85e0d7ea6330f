/** Four weeks of drills: the clerk learns, the visiting appraiser keeps in practice. */
import { compileReference } from '@jutbank/core/bench';
import { asDay } from '@jutbank/core/dates';
import { random } from '@jutbank/core/random';
import { questionsOfReference } from '@jutbank/core/training';
import type { DrillQuestionAnswer } from '@jutbank/contract/training';
import { emptyContents } from '@jutbank/core/reference';
import { Client } from './client.ts';
import type { Clock } from './clock.ts';
import { demoPack } from './world/reference.ts';

const LEARNERS = [
  {
    email: 'tom@hollinquay.example',
    days: [26, 25, 23, 22, 20, 18, 15, 14, 11, 8, 6, 4, 3, 1],
    right: 0.72,
    better: 0.012,
  },
  { email: 'ines@hollinquay.example', days: [21, 16, 12, 9, 5, 2], right: 0.93, better: 0 },
];
const A_SESSION = 10;

/** @param clock without one everything is learnt on one day */
export async function fillDrills(address: string, password: string, clock: Clock | undefined): Promise<void> {
  const index = compileReference(
    { ...emptyContents(), ...demoPack },
    demoPack.revision,
    asDay(Math.floor(Date.now() / 86_400_000)),
  );
  const answers = new Map(questionsOfReference(index).map((q) => [q.id, q.choices[q.right]]));
  const luck = random(41);
  for (const { email, days, right, better } of LEARNERS) {
    for (const [i, daysAgo] of (clock ? days : [0]).entries()) {
      await clock?.set(daysAgo);
      const client = new Client(address);
      await client.signIn({ email, password });
      const { items } = await client.call<{ items: DrillQuestionAnswer[] }>(
        'GET',
        `/drills/next?limit=${A_SESSION}`,
      );
      for (const { id, basis, choices } of items) {
        const answer = answers.get(id);
        const knows = luck.yes(right + i * better);
        const choice = (knows ? answer : choices.find((c) => c !== answer)) ?? choices[0] ?? '';
        await client.call('POST', '/drills/answers', {
          question: id,
          basis,
          choice,
          took: luck.whole(2000, 24_000),
        });
      }
    }
  }
  await clock?.set(0);
}
