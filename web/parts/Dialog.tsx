import { type ReactNode, useEffect, useRef, useState } from 'react';
import { uncovered } from './Guarded.tsx';

/** A native dialog that follows `open`. */
function useDialog(open: boolean) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog) return;
    if (open && !dialog.open) {
      dialog.showModal();
      // A closed dialog cannot hold the focus, so the field is given it now.
      dialog.querySelector('input')?.focus();
    }
    if (!open && dialog.open) {
      dialog.close();
      uncovered();
    }
  }, [open]);
  return ref;
}

interface DialogProps {
  open: boolean;
  onClose(): void;
  /** What it is about, for who hears it. */
  label: string;
  /** Where it stands, how wide it may be, its padding. */
  className?: string;
  /** Drawn only while it is open, so that it begins anew each time. */
  children: ReactNode;
}

export const AMID = 'm-auto p-3 sm:p-5 max-w-[97vw] max-h-[98dvh] overflow-auto';

/** A sheet over the page that keeps the focus; Escape closes it. */
export function Dialog({ open, onClose, label, className = AMID, children }: DialogProps) {
  const ref = useDialog(open);
  // Not there before it is first asked for: a first view pays for nothing that nobody opened.
  const [asked, setAsked] = useState(open);
  if (open && !asked) setAsked(true);
  if (!asked) return null;
  return (
    <dialog ref={ref} onClose={onClose} className={`sheet text-[var(--ink)] ${className}`} aria-label={label}>
      {open && children}
    </dialog>
  );
}
