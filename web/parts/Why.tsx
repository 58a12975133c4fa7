import { useState } from 'react';

export interface Reason {
  inputs: [name: string, value: string][];
  formula: string;
  /** What is a default, or from how many readings it was learnt. */
  grounds: string[];
  change?: string;
}

/** Any computed figure can be opened: what went in, the formula in words, and what would change it. */
export function Why({ reason, label = 'Why' }: { reason: Reason; label?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <span>
      <button type="button" className="link text-sm soft no-print" aria-expanded={open} onClick={() => setOpen(!open)}>
        {label}
      </button>
      {open && (
        <div className="sheet mt-2 p-3 text-sm flex flex-col gap-2 max-w-md">
          <p>{reason.formula}</p>
          <dl className="grid grid-cols-[auto_auto] gap-x-4 gap-y-0.5 justify-start">
            {reason.inputs.map(([name, value]) => (
              <div key={name} className="contents">
                <dt className="soft">{name}</dt>
                <dd className="figure text-[0.8125rem] pt-0.5">{value}</dd>
              </div>
            ))}
          </dl>
          {reason.grounds.map((ground) => (
            <p key={ground} className="soft">
              {ground}
            </p>
          ))}
          {reason.change && <p className="font-bold">{reason.change}</p>}
        </div>
      )}
    </span>
  );
}
