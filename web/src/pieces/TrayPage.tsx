import { hasLeft } from '@jutbank/core/pieces';
import { stagePath } from './stagePath.ts';
import { archiveRoutes } from '@jutbank/contract/archive';
import { pieceRoutes, type PieceSlip } from '@jutbank/contract/pieces';
import { Button } from '@mui/material';
import { useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import { periodInWords, periodOf } from '@jutbank/core/dates';
import { useAnswer } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { Empty, Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import type { DrawnAs } from '@jutbank/core/drawing';
import { useForms } from '../reference/useForms.ts';
import { TierBadge } from '../parts/TierBadge.tsx';
import { momentText, moneyText, sentence, STAGE_WORDS } from '../parts/words.ts';
import { SmallRule } from '../parts/YearRule.tsx';
import './pieces.css';

/** What is in work, each piece as a slip: what it is, when, its worth, and what it wants next. */
export default function TrayPage() {
  const { shop } = useSession();
  const mayWork = useMay('work');
  const navigate = useNavigate();
  const tray = useAnswer(pieceRoutes.tray);
  const keys = useMemo(
    () => [
      { key: 'n', does: 'Take in a piece', run: () => void navigate('/pieces/new') },
      { key: 'l', does: 'The listing desk', run: () => void navigate('/listing-desk') },
    ],
    [navigate],
  );
  useShortcuts('The tray', keys);
  const recipeOf = useForms(
    [...(tray.data?.attention ?? []), ...(tray.data?.groups.flatMap((g) => g.slips) ?? [])]
      .filter((slip) => !slip.picture)
      .map(drawnAs),
  );
  if (tray.isPending) return <Loading />;
  if (tray.isError) return <Failed error={tray.error} retry={() => void tray.refetch()} />;
  const { groups, attention, bound, asking } = tray.data;
  const takeIn = mayWork && (
    <Button component={Link} to="/pieces/new" variant="contained">
      Take in a piece
    </Button>
  );
  if (groups.length === 0)
    return (
      <Empty title="The tray is empty">
        <p className="soft" style={{ marginBottom: 14 }}>
          Take in the first piece, or <Link to="/pieces/from-list">move in with your whole list</Link>; before
          that <Link to="/reference">import a reference pack</Link> and{' '}
          <Link to="/comparables">your comparables</Link>, so that the bench and the prices have something to
          go by.
        </p>
        {takeIn}
      </Empty>
    );
  const inWork = groups.filter((g) => !hasLeft(g.stage)).reduce((n, g) => n + g.count, 0);
  return (
    <div className="page">
      <div className="traytop">
        <PageTitle className="visually-hidden">{`The tray of ${shop.name}`}</PageTitle>
        <span>
          <span className="num big">{inWork}</span> in work
        </span>
        <span>
          <span className="num big">{moneyText(bound)}</span> <span className="soft">bound in them</span>
        </span>
        <span>
          <span className="num big">{moneyText(asking)}</span> <span className="soft">asked for</span>
        </span>
        <span className="grow" />
        <Link to="/pieces">All pieces</Link>
        <Link to="/listing-desk">Listing desk</Link>
        {takeIn}
      </div>
      <BackupTooOld />
      {attention.length > 0 && (
        <section className="group" aria-label="Wants a look">
          <h2>
            Wants a look <span className="num">{attention.length}</span>{' '}
            <Link className="all" to="/pieces?warned=1">
              All that want one
            </Link>
          </h2>
          <div className="slips">
            {attention.map((slip) => (
              <Slip key={slip.id} slip={slip} recipeOf={recipeOf} urgent />
            ))}
          </div>
        </section>
      )}
      {groups.map((group) => (
        <section className="group" key={group.stage} aria-label={STAGE_WORDS[group.stage]}>
          <h2>
            {STAGE_WORDS[group.stage]}
            <span className="num">
              {group.count} · {moneyText(group.bound)}
            </span>{' '}
            {group.count > group.slips.length && (
              <Link className="all" to={`/pieces?stage=${group.stage}`}>
                All {group.count}
              </Link>
            )}
          </h2>
          <div className="slips">
            {group.slips.map((slip) => (
              <Slip key={slip.id} slip={slip} recipeOf={recipeOf} />
            ))}
          </div>
        </section>
      ))}
    </div>
  );
}

/** Whoever works here is told that the shop would not come back. */
function BackupTooOld() {
  const mayWork = useMay('work');
  const backups = useAnswer(archiveRoutes.backups, {}, { enabled: mayWork, staleTime: 5 * 60_000 });
  if (!backups.data?.tooOld) return null;
  const { lastGoodAt } = backups.data;
  return (
    <p className="note bad">
      <b>{lastGoodAt === null ? 'There is no good backup.' : 'The last good backup is too old.'}</b>
      {lastGoodAt !== null && `It is of ${momentText(lastGoodAt)}. `}
      <Link to="/backups">See what came of the last one</Link>
    </p>
  );
}

const drawnAs = ({ construction, readings }: PieceSlip): DrawnAs => ({
  construction,
  variant: readings.which.variant,
  pattern: readings.which.pattern,
});

function Slip({
  slip,
  recipeOf,
  urgent = false,
}: {
  slip: PieceSlip;
  recipeOf: ReturnType<typeof useForms>;
  urgent?: boolean;
}) {
  const { readings } = slip;
  return (
    <Link className="slip" to={`/pieces/${slip.id}/${stagePath(slip)}`}>
      <div className="pic">
        {slip.picture ? (
          <img src={`/api/v1/pictures/${slip.picture}/thumb`} alt="" loading="lazy" />
        ) : (
          <FormDrawing recipe={recipeOf(drawnAs(slip))} width={82} height={58} label="" />
        )}
      </div>
      <div>
        <div className="id">{slip.stockNumber}</div>
        <div className="t">{slip.title}</div>
        <div
          className="soft"
          style={{ fontSize: 12.3, display: 'flex', gap: 6, alignItems: 'center', flexWrap: 'wrap' }}
        >
          <TierBadge tier={readings.which.tier} />
        </div>
      </div>
      <div className="w">
        <span>
          {readings.when ? (
            periodInWords(periodOf(readings.when.core))
          ) : (
            <span className="soft">not dated</span>
          )}
        </span>
        <span>{readings.when && <SmallRule core={readings.when.core} outer={readings.when.outer} />}</span>
        <span className="soft">
          {readings.condition ? sentence(readings.condition.grade) : 'not inspected'}
        </span>
        <span className="num">
          {[
            slip.ask && `asks ${moneyText(slip.ask, true)}`,
            readings.worth && `≈ ${moneyText(readings.worth.estimate, true)}`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </div>
      <div className={urgent ? 'next warn' : 'next'}>
        {urgent ? slip.attention.join(' · ') : slip.missing}
      </div>
    </Link>
  );
}
