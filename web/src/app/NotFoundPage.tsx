import { Link } from 'react-router';
import { PageTitle } from '../parts/PageTitle.tsx';

export default function NotFoundPage() {
  return (
    <div className="state">
      <PageTitle>There is nothing at this address</PageTitle>
      <p className="soft">
        It may have been moved. <Link to="/">Back to the tray</Link>, or press <kbd>/</kbd> to find it.
      </p>
    </div>
  );
}
