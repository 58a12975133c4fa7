import { type ReactNode, useEffect } from 'react';
import { Link } from 'react-router';
import { ApiError } from '../api/client.ts';

interface Props {
  title: ReactNode;
  /** Title of the browser's tab. */
  tab: string;
  under?: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
}

/** A place: its heading says what it is about, its actions stand beside the heading. */
export function Page({ title, tab, under, actions, children }: Props) {
  useEffect(() => {
    document.title = `${tab} · Blunko`;
  }, [tab]);
  return (
    <div className="px-4 sm:px-7 xl:px-10 py-5 sm:py-7 max-w-[1400px] mx-auto w-full flex flex-col gap-6 print:p-0">
      <header className="flex items-start gap-6 flex-wrap">
        <div className="flex-1 min-w-60">
          <h1 className="text-[1.75rem] sm:text-4xl wrap-anywhere">{title}</h1>
          {under && <div className="soft mt-2">{under}</div>}
        </div>
        {actions && <div className="flex gap-3 flex-wrap no-print">{actions}</div>}
      </header>
      {children}
    </div>
  );
}

/** An empty place teaches the next step. */
export function Empty({ say, then, to, action }: { say: string; then: string; to: string; action: string }) {
  return (
    <div className="flex flex-col gap-4 items-start max-w-xl py-8">
      <h2 className="text-3xl">{say}</h2>
      <p className="soft text-lg">{then}</p>
      <Link to={to} className="btn btn-primary btn-lg">
        {action}
      </Link>
    </div>
  );
}

interface Paged {
  hasNextPage: boolean;
  isFetchingNextPage: boolean;
  fetchNextPage(): Promise<unknown>;
}

/** The way to the rest of a list that is shown a page at a time; nothing at its end. */
export function More({ list, children }: { list: Paged; children: ReactNode }) {
  if (!list.hasNextPage) return null;
  return (
    <button
      type="button"
      className="btn btn-line self-start mt-3"
      disabled={list.isFetchingNextPage}
      onClick={() => void list.fetchNextPage()}
    >
      {children}
    </button>
  );
}

export function Waiting() {
  return (
    <p className="p-10 soft" role="status">
      Reading the records …
    </p>
  );
}

/**
 * Whether a place has nothing to show: its record was never read, or the workshop says that it is not there any more. One
 * that was read stays on the screen while the Wi-Fi is away.
 */
export const isGone = (error: Error | null, data: unknown): error is Error =>
  error !== null && (data === undefined || (error instanceof ApiError && error.status < 500));

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
