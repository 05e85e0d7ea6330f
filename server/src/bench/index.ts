/** The stateless question, and the same for a stored piece. */
import { checkQuestion, identify } from '@jutbank/core/bench';
import { benchRoutes } from '@jutbank/contract/bench';
import { answer, invalid, type Mount } from '../http/index.ts';
import { identifyRecord, pieceRecord } from '../intake/index.ts';
import type { Library } from '../reference/index.ts';

export function mountBench(mount: Mount, library: Library): void {
  mount.reads(benchRoutes.identify, async ({ body }) => {
    const index = await library.index();
    const problems = checkQuestion(index, body);
    if (problems.length > 0) throw invalid(problems);
    return answer(identify(index, body));
  });
  mount.reads(benchRoutes.identifyPiece, async ({ params }) =>
    answer(identifyRecord(await library.index(), await pieceRecord(mount.database, params.id))),
  );
}
