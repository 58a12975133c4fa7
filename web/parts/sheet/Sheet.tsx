import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
} from 'react';
import { fieldTitle } from '../../../core/schema.ts';
import { faultsAt } from '../../../core/validate.ts';
import { ApiError } from '../../api/client.ts';
import { Refusal } from '../Fields.tsx';
import { useTaste } from '../taste.tsx';
import { valueAt } from './paths.ts';
import type { Sheet as State } from './useSheet.ts';

/** A field that stands on the sheet. */
interface Standing {
  path: string;
  /** It is written by hand, and can be wrong by itself. */
  written: boolean;
  /** Said in place of the schema's title. */
  label: string | undefined;
}

interface Within {
  sheet: State;
  /** The server's refusal of what stands in this field, until it is changed. */
  refusedAt(path: string): unknown;
  mounted(field: Standing): () => void;
  titleOf(path: string[]): string;
  changed(path: string): void;
  error: unknown;
  busy: boolean;
  onSure(): void;
  /** The refusal has no field here to stand at. */
  homeless: boolean;
}

const Context = createContext<Within | null>(null);

export function useWithin(): Within {
  const within = useContext(Context);
  if (!within) throw new Error('a field outside its sheet');
  return within;
}

interface Props {
  // biome-ignore lint/suspicious/noExplicitAny: a sheet of any values
  of: State<any>;
  /** @param sure what the workshop asked about, such as figures that contradict each other, is kept all the same. */
  onSend(sure: boolean): void;
  /** The write that it is sent by. */
  by: { error: unknown; isPending: boolean };
  className?: string;
  children: ReactNode;
}

/** A form: every field knows its title, unit and bounds from the schema, and a refusal stands at its field. */
export function Sheet({ of: sheet, onSend, by, className = 'flex flex-col gap-4', children }: Props) {
  const form = useRef<HTMLFormElement>(null);
  const [fields, setFields] = useState<Standing[]>([]);
  const [answered, setAnswered] = useState<{ error: unknown; paths: string[] }>({ error: null, paths: [] });
  const { error, isPending } = by;
  const mounted = useCallback((field: Standing) => {
    setFields((before) => [...before, field]);
    return () => setFields((before) => before.filter((one) => one !== field));
  }, []);
  const changed = useCallback(
    (path: string) =>
      setAnswered((before) => ({ error, paths: [...(before.error === error ? before.paths : []), path] })),
    [error],
  );
  const path = error instanceof ApiError && error.code !== 'contradicts-itself' ? error.path : undefined;
  const home =
    path === undefined ? undefined : fields.find((one) => one.path === path || one.path.startsWith(`${path}.`))?.path;
  const settled = answered.error === error && home !== undefined && answered.paths.includes(home);
  // What was written is wrong by itself too, where another one decides that it is not sent.
  const checked = useMemo(() => {
    const told = new Set(sheet.faults.map((fault) => fault.path.join('.')));
    const own = [...new Set(fields.filter((field) => field.written).map((field) => field.path))]
      .filter((at) => !told.has(at))
      .flatMap((at) => faultsAt(sheet.schema, at.split('.'), valueAt(sheet.values, at)));
    return own.length === 0 ? sheet : { ...sheet, faults: [...sheet.faults, ...own] };
  }, [sheet, fields]);
  const within = useMemo<Within>(
    () => ({
      sheet: checked,
      refusedAt: (field) => (field === home && !settled ? error : undefined),
      mounted,
      titleOf: (at) => fields.find((field) => field.path === at.join('.'))?.label ?? fieldTitle(sheet.schema, at),
      changed,
      error,
      busy: isPending,
      onSure: () => onSend(true),
      homeless: Boolean(error) && home === undefined,
    }),
    [checked, fields, sheet.schema, home, settled, error, isPending, onSend, mounted, changed],
  );
  // Where it was refused is where the eye and the next key should be.
  useEffect(() => {
    if (home && error) form.current?.querySelector<HTMLElement>(`[data-field="${CSS.escape(home)}"]`)?.focus();
  }, [home, error]);
  const ready = canSend(checked);
  return (
    <Context value={within}>
      <form
        ref={form}
        className={className}
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (ready && !isPending) onSend(false);
        }}
      >
        {children}
      </form>
    </Context>
  );
}

const canSend = (sheet: State) => sheet.faults.length === 0 && Object.keys(sheet.typed).length === 0;

/** What is missing or wrong, in the words of the fields; nothing where it can be sent. */
function standing({ sheet, titleOf }: Within, inWords: (fault: State['faults'][number]) => string): string | undefined {
  const named = (paths: string[][]) => [...new Set(paths.map(titleOf))].join(', ');
  const missing = sheet.faults.filter((fault) => fault.missing && fault.path.length > 0);
  const wrong = sheet.faults.filter((fault) => !missing.includes(fault));
  const unread = Object.keys(sheet.typed).map((path) => path.split('.'));
  const rest = missing.filter((fault) => !(fault.path.join('.') in sheet.typed));
  if (rest.length > 0) return `Still missing: ${named(rest.map((fault) => fault.path))}.`;
  if (unread.length > 0) return `Not understood yet: ${named(unread)}.`;
  return wrong[0] && inWords(wrong[0]);
}

interface SendProps {
  children: ReactNode;
  className?: string;
  /** Only what was changed is worth sending. */
  onlyChanged?: boolean;
}

/** Sends the sheet; while it cannot, says what is missing. */
export function Send({ children, className = 'btn-lg', onlyChanged = false }: SendProps) {
  const within = useWithin();
  const { sheet, busy, error, homeless, onSure } = within;
  const taste = useTaste();
  const lacksId = useId();
  const idle = onlyChanged && !sheet.changed;
  const lacks = idle ? 'Nothing is changed yet.' : standing(within, (fault) => taste.say(fault.said));
  return (
    <div className="flex flex-col gap-2 items-start">
      {homeless && <Refusal error={error} onSure={onSure} />}
      {sheet.restored && sheet.changed && (
        <p className="soft">
          What you had typed is here again.{' '}
          <button type="button" className="link" onClick={sheet.startAfresh}>
            Start afresh
          </button>
        </p>
      )}
      {!sheet.kept && (
        <p className="warn font-bold">This browser’s storage is full: a reload would lose what you type here.</p>
      )}
      <div className="flex items-center gap-x-4 gap-y-2 flex-wrap">
        <button
          type="submit"
          className={`btn btn-primary ${className}`}
          disabled={busy || !canSend(sheet) || idle}
          aria-describedby={lacksId}
        >
          {children}
        </button>
        {lacks && (
          <p id={lacksId} className="soft max-w-96" role="status">
            {lacks}
          </p>
        )}
      </div>
    </div>
  );
}

/** Puts what was typed aside and leaves the sheet. */
export function AsItWas({ onDone }: { onDone(): void }) {
  const { sheet } = useWithin();
  return (
    <button
      type="button"
      className="btn btn-line"
      onClick={() => {
        sheet.startAfresh();
        onDone();
      }}
    >
      As it was
    </button>
  );
}
