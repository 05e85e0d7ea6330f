/** The appraisals that were made of a piece, and the way to the next. */
import { worthRoutes } from '@jutbank/contract/worth';
import { Button } from '@mui/material';
import { Link } from 'react-router';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { dayText, moneyText } from '../parts/words.ts';
import { BASIS_WORDS, PURPOSE_WORDS } from './words.ts';
import './worth.css';

export function Appraisals({ sheet }: { sheet: PieceSheet }) {
  const mayAppraise = useMay('appraise');
  const kept = useAnswer(worthRoutes.appraisals, { params: { id: sheet.id } });
  const items = kept.data?.items ?? [];
  return (
    <section className="appraisals">
      <h2 className="sec">
        Appraisals <small>each kept as it was made</small>
      </h2>
      {items.length === 0 ? (
        <p className="soft">
          None yet. What is written on a day, with every sale it rests on, can be shown and explained for
          ever.
        </p>
      ) : (
        <table className="grid">
          <tbody>
            {items.map((a) => (
              <tr key={a.id}>
                <td>
                  <Link to={`/appraisals/${a.id}`} className="mono">
                    {a.number}
                  </Link>
                  <span className="soft" style={{ display: 'block' }}>
                    {BASIS_WORDS[a.basis]} as of {dayText(a.effectiveDate)},{' '}
                    {PURPOSE_WORDS[a.purpose].toLowerCase()}, {a.person}
                  </span>
                </td>
                <td className="r num">{moneyText(a.concluded)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {mayAppraise && (
        <Button component={Link} to={`/pieces/${sheet.id}/appraise`} sx={{ mt: 1 }}>
          Appraise it
        </Button>
      )}
    </section>
  );
}
