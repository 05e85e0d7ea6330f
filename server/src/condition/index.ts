import { gradeCondition } from '@jutbank/core/condition';
import { conditionRoutes } from '@jutbank/contract/condition';
import { answer, type Mount } from '../http/index.ts';

export function mountCondition(mount: Mount): void {
  mount.reads(conditionRoutes.grade, async ({ body }) => answer(gradeCondition(body)));
}
