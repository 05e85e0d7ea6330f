import { Link } from 'react-router';
import { Empty } from '../base/states.tsx';

export default function NotFoundPage() {
  return (
    <Empty title="There is nothing at this address">
      <p className="soft">
        It may have been moved. <Link to="/">Back to the tray</Link>, or press <kbd>/</kbd> to find it.
      </p>
    </Empty>
  );
}
