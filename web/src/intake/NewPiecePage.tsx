import { intakeRoutes } from '@jutbank/contract/intake';
import { Button } from '@mui/material';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { emptyIntake, intakeBody, type IntakeBody } from '@jutbank/contract/pieces';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Empty } from '../base/states.tsx';
import { useUnsaved } from '../base/unsaved.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { useTakeSheet } from '../pieces/usePiece.ts';
import { IntakeForm } from './IntakeForm.tsx';

export default function NewPiecePage() {
  const { shop } = useSession();
  const mayWork = useMay('work');
  const navigate = useNavigate();
  const takeSheet = useTakeSheet();
  const [value, setValue] = useState<IntakeBody>(emptyIntake);
  const [problem, setProblem] = useState<ApiProblem>();
  const [busy, setBusy] = useState(false);
  useUnsaved(value !== emptyIntake && !busy);
  if (!mayWork) return <Empty title="Your account reads, it does not take in pieces" />;
  const submit = async () => {
    const checked = intakeBody.safeParse(value);
    if (!checked.success) {
      setProblem(
        new ApiProblem(
          422,
          'Some of the input is not right',
          undefined,
          checked.error.issues.map((i) => ({ pointer: `/${i.path.join('/')}`, message: i.message })),
        ),
      );
      return;
    }
    setBusy(true);
    try {
      const sheet = await send(intakeRoutes.createPiece, { body: checked.data });
      takeSheet(sheet);
      await navigate(`/pieces/${sheet.id}/intake`);
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error : new ApiProblem(0, 'Not saved', String(error), []));
    } finally {
      setBusy(false);
    }
  };
  return (
    <div className="page" style={{ maxWidth: 760 }}>
      <div className="pagehead">
        <PageTitle>Take in a piece</PageTitle>
        <span className="soft">What is not known yet can be added later; only a name is needed.</span>
        <span className="grow" />
        <Link className="quiet" to="/pieces/from-list">
          A whole list
        </Link>
      </div>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void submit();
        }}
      >
        <IntakeForm
          value={value}
          currency={shop.baseCurrency}
          autoFocus
          problemAt={(pointer) => problem?.at(pointer)}
          onChange={setValue}
        />
        {problem && problem.errors.length === 0 && (
          <p className="problem" role="alert">
            {problem.message}
          </p>
        )}
        <div style={{ marginTop: 16 }}>
          <Button type="submit" variant="contained" disabled={busy}>
            Take it in
          </Button>
        </div>
      </form>
    </div>
  );
}
