import { useQueryErrorResetBoundary } from '@tanstack/react-query';
import { useCallback, useEffect } from 'react';
import { Link, useNavigate, useRouteError } from 'react-router';
import { NoAnswer } from '../api/client.ts';
import { Page } from '../parts/Page.tsx';

/** How often a page without its server looks for it again. */
export const LOOK_AGAIN_MS = 4000;

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

/** A place whose records could not be read: the frame around it stays, and it can be asked again. */
export function Failed() {
  const error = useRouteError();
  const { reset } = useQueryErrorResetBoundary();
  const navigate = useNavigate();
  const again = useCallback(() => {
    reset();
    void navigate('.', { replace: true });
  }, [reset, navigate]);
  // The Wi-Fi comes back by itself.
  const silent = error instanceof NoAnswer;
  useEffect(() => {
    if (!silent) return;
    const looking = setInterval(again, LOOK_AGAIN_MS);
    return () => clearInterval(looking);
  }, [silent, again]);
  return (
    <Page
      title="This cannot be read just now."
      tab="Not read"
      under={error instanceof Error ? error.message : 'Unknown fault.'}
    >
      <p>What was recorded is safe with the workshop’s computer.</p>
      <div className="flex gap-3">
        <button type="button" className="btn btn-primary" onClick={again}>
          Try again
        </button>
        <Link to="/" className="btn btn-line">
          Back to today
        </Link>
      </div>
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
