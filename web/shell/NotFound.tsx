import { Link, useRouteError } from 'react-router';
import { Page } from '../parts/Page.tsx';

export function NotFound() {
  return (
    <Page
      title="Nothing hangs on this nail."
      tab="Not found"
      under="The address leads to no page or record here. It may be an old link, or a record of another workshop."
    >
      <Link to="/" className="btn btn-primary self-start">
        Back to today
      </Link>
    </Page>
  );
}

/** A record that is not there, or a question that failed, inside its place. */
export function Missing({ error, back, backTo }: { error: Error; back: string; backTo: string }) {
  return (
    <Page title="This cannot be shown." tab="Not found" under={error.message}>
      <Link to={backTo} className="btn btn-primary self-start">
        {back}
      </Link>
    </Page>
  );
}

export function Broken() {
  const error = useRouteError();
  return (
    <Page title="This page broke." tab="Broken" under={error instanceof Error ? error.message : 'Unknown fault.'}>
      <p>What was recorded is safe with the workshop’s computer.</p>
      <a href="/" className="btn btn-primary self-start">
        Back to today
      </a>
    </Page>
  );
}
