import { useMediaQuery } from '@mui/material';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import { NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { periodInWords, periodOf } from '@jutbank/core/dates';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useShortcuts } from '../base/shortcuts.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import { useForms } from '../reference/useForms.ts';
import { TierBadge } from '../parts/TierBadge.tsx';
import { usePieceQuery } from './usePiece.ts';
import { moneyText, sentence } from '../parts/words.ts';
import './pieces.css';

const STAGE_LINKS = [
  {
    path: 'intake',
    label: 'Intake',
    key: 'i',
    done: (s: PieceSheet) => s.intake.sourceKind !== null && s.intake.price !== null && s.pictures.length > 0,
  },
  { path: 'bench', label: 'Bench', key: 'b', done: (s: PieceSheet) => s.attribution !== null },
  { path: 'condition', label: 'Condition', key: 'c', done: (s: PieceSheet) => s.condition.inspected },
  { path: 'worth', label: 'Worth', key: 'w', done: (s: PieceSheet) => s.pricing.ask !== null },
  { path: 'trail', label: 'Trail', key: 't', done: (s: PieceSheet) => s.custody.length > 0 },
  {
    path: 'listing',
    label: 'Listing',
    key: 'l',
    done: (s: PieceSheet) => s.listing !== null && s.listing.state !== 'draft',
  },
  { path: 'sale', label: 'Sale', key: 's', done: (s: PieceSheet) => s.sale !== null },
] as const;

/** One page for one piece: five live readings, and the stages in working order. */
export default function PiecePage() {
  const { id = '' } = useParams();
  const piece = usePieceQuery(id);
  const navigate = useNavigate();
  const keys = useMemo(
    () =>
      STAGE_LINKS.map((stage) => ({
        key: stage.key,
        does: stage.label,
        run: () => void navigate(`/pieces/${id}/${stage.path}`),
      })),
    [id, navigate],
  );
  useShortcuts('This piece', keys);
  const phone = useMediaQuery('(max-width: 560px)');
  const stages = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const ready = piece.isSuccess;
  // on a phone the stages stand in a row that is wider than the screen
  useEffect(() => {
    stages.current
      ?.querySelector("[aria-current='page']")
      ?.scrollIntoView({ inline: 'center', block: 'nearest' });
  }, [pathname, ready]);
  if (piece.isPending) return <Loading />;
  if (piece.isError) return <Failed error={piece.error} retry={() => void piece.refetch()} />;
  const sheet = piece.data;
  return (
    <>
      {phone ? (
        <details className="readingsline">
          <summary>{inOneLine(sheet)}</summary>
          <Readings sheet={sheet} />
        </details>
      ) : (
        <Readings sheet={sheet} />
      )}
      <div className="sheetbody">
        <nav className="stages" aria-label="Stages" ref={stages}>
          {STAGE_LINKS.map((stage) => (
            <NavLink key={stage.path} to={`/pieces/${id}/${stage.path}`}>
              {stage.label}
              {stage.done(sheet) && <span className="done" role="img" aria-label="done" />}
            </NavLink>
          ))}
        </nav>
        {/* a stage holds what is being typed; another piece is another stage */}
        <Outlet key={sheet.id} context={sheet} />
      </div>
    </>
  );
}

/** The five readings in a line that a phone has room for; opened, they are whole. */
function inOneLine(sheet: PieceSheet): ReactNode {
  const { which, when, condition, worth, trail } = sheet.readings;
  const rest = [
    when ? periodInWords(periodOf(when.core)) : 'not dated',
    condition ? sentence(condition.grade) : 'not inspected',
    worth ? moneyText(worth.estimate, true) : worthMissing(sheet)[0].toLowerCase(),
    trail.problems > 0 ? 'trail contradicted' : `trail ${trail.word}`,
  ];
  return (
    <>
      <b>{which.label === '' ? sheet.title : which.label}</b> · {rest.join(' · ')}
    </>
  );
}

function Readings({ sheet }: { sheet: PieceSheet }) {
  const { which, when, condition, worth, trail } = sheet.readings;
  const as = { construction: sheet.construction, variant: which.variant, pattern: which.pattern };
  const recipeOf = useForms(sheet.picture ? [] : [as]);
  const { pathname } = useLocation();
  const stage = STAGE_LINKS.find(({ path }) => pathname.endsWith(`/${path}`));
  const to = (stage: string) => `/pieces/${sheet.id}/${stage}`;
  return (
    <section className="readings" aria-label="Readings">
      <div>
        {sheet.picture ? (
          <img src={`/api/v1/pictures/${sheet.picture}/thumb`} alt="" />
        ) : (
          <FormDrawing recipe={recipeOf(as)} width={92} height={56} />
        )}
      </div>
      <NavLink to={to('bench')}>
        <div className="k">
          <span className="mono">{sheet.stockNumber}</span> · {sheet.title}
        </div>
        <PageTitle
          className="v"
          name={`${sheet.stockNumber} ${sheet.title}${stage ? `: ${stage.label}` : ''}`}
        >
          {which.label}
        </PageTitle>
        <div className="d">
          <TierBadge tier={which.tier} />
        </div>
      </NavLink>
      <NavLink to={to('bench')}>
        <div className="k">When</div>
        <div className="v">{when ? periodInWords(periodOf(when.core)) : 'Not dated yet'}</div>
        <div className="d">
          {when ? (
            when.conflict ? (
              <span className="warn">something does not fit</span>
            ) : when.outer === when.core ? (
              'no source says it was longer'
            ) : (
              `at its widest ${periodInWords(periodOf(when.outer))}`
            )
          ) : (
            'features with dates will say'
          )}
        </div>
      </NavLink>
      <NavLink to={to('condition')}>
        <div className="k">Condition</div>
        <div className="v">{condition ? sentence(condition.grade) : 'Not inspected'}</div>
        <div className="d">
          {condition
            ? condition.note || `index ${condition.index} of 100`
            : counted(sheet.condition.findings.length)}
        </div>
      </NavLink>
      <NavLink to={to('worth')}>
        <div className="k">Worth</div>
        <div className="v">
          {worth ? (
            <span className="num">
              {moneyText(worth.estimate, true)}{' '}
              <span className="soft" style={{ fontWeight: 450 }}>
                {rangeText(worth.low.amount, worth.high.amount)}
              </span>
            </span>
          ) : (
            worthMissing(sheet)[0]
          )}
        </div>
        <div className="d">
          {worth
            ? worth.thin
              ? 'few sales: a wide range'
              : `${worth.comparables} sales bear on it`
            : worthMissing(sheet)[1]}
        </div>
      </NavLink>
      <NavLink to={to('trail')}>
        <div className="k">Paper trail</div>
        <div className="v">{sentence(trail.word)}</div>
        <div className="d">
          {trail.problems > 0 ? (
            <span className="warn">
              {trail.problems === 1 ? 'one contradiction' : `${trail.problems} contradictions`}
            </span>
          ) : (
            `told for ${Math.round(trail.share * 100)} % of its life`
          )}
        </div>
      </NavLink>
    </section>
  );
}

const counted = (findings: number) => (findings === 1 ? 'one finding' : `${findings} findings`);
const rangeText = (low: string, high: string) => `${Math.round(Number(low))}–${Math.round(Number(high))}`;

/** Why no worth stands there, in two lines. */
function worthMissing({ readings, intake }: PieceSheet): readonly [string, string] {
  const { unsupported, marketAway } = readings;
  if (marketAway) return ['Cannot be reckoned now', 'the market is away; all else stands'];
  if (intake.takenInAs !== null) return ['Not known', 'a copy is not worth what the original is'];
  return unsupported
    ? ['No sale near it', 'only a guess by its kind']
    : ['Not known yet', 'wants a pattern first'];
}
