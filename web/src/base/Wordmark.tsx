import { Link } from 'react-router';

export function Wordmark() {
  return (
    <Link to="/" className="wordmark">
      <svg width="26" height="22" viewBox="0 0 26 22" aria-hidden="true">
        <path d="M0 20h26v2H0zM0 12h17v3H0zM0 12h5v8H0z" fill="var(--ink)" />
        <path d="M6 9L25 2l-4 7z" fill="var(--accent)" />
      </svg>
      Jutbank
    </Link>
  );
}
