import { useEffect, useState } from 'react';
import { Dialog } from '../../parts/Dialog.tsx';

interface Props {
  open: boolean;
  title: string;
  unit: string;
  kinds?: { value: string; label: string }[];
  startKind?: string;
  onClose(): void;
  /** @returns what is wrong with it, in words; null where it was taken. */
  onEnter(value: number, kind: string): string | null;
}

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3'];

/** A figure typed with a glove: nothing on it is smaller than 64 px, and no keyboard comes up. */
export function Keypad({ open, title, unit, kinds = [], startKind = '', onClose, onEnter }: Props) {
  return (
    <Dialog open={open} onClose={onClose} label={title}>
      <Pad title={title} unit={unit} kinds={kinds} startKind={startKind} onClose={onClose} onEnter={onEnter} />
    </Dialog>
  );
}

function Pad({ title, unit, kinds, startKind, onClose, onEnter }: Required<Omit<Props, 'open'>>) {
  const [text, setText] = useState('');
  const [kind, setKind] = useState(startKind);
  const [wrong, setWrong] = useState<string | null>(null);
  const press = (digit: string) => {
    setWrong(null);
    setText((before) => (before.length < 5 && !(digit === '.' && before.includes('.')) ? before + digit : before));
  };
  const back = () => {
    setWrong(null);
    setText((before) => before.slice(0, -1));
  };
  const enter = () => {
    const value = Number(text);
    if (text === '' || !Number.isFinite(value)) return;
    const refused = onEnter(value, kind);
    setWrong(refused);
    if (refused) setText('');
  };
  // A keyboard works too, where there is one.
  useEffect(() => {
    const type = (event: KeyboardEvent) => {
      if (/^[\d.]$/.test(event.key)) press(event.key);
      if (event.key === 'Backspace') back();
      // Whatever was tapped last has the focus: Enter on a keyboard means the figure, not that target again.
      if (event.key === 'Enter' && !(event.target as HTMLElement).dataset.leaves) {
        event.preventDefault();
        enter();
      }
    };
    window.addEventListener('keydown', type);
    return () => window.removeEventListener('keydown', type);
  });
  return (
    <div className="flex flex-col gap-2 sm:gap-3 w-[400px] max-w-full">
      <h2 className="text-2xl">{title}</h2>
      {kinds.length > 0 && (
        <fieldset className="flex gap-2" aria-label="What is read">
          {kinds.map((one) => (
            <button
              key={one.value}
              type="button"
              aria-pressed={kind === one.value}
              className={`btn flex-1 bench-target ${kind === one.value ? 'btn-primary' : 'btn-line border'}`}
              onClick={() => setKind(one.value)}
            >
              {one.label}
            </button>
          ))}
        </fieldset>
      )}
      <output
        className="figure text-6xl sm:text-7xl text-right border-b-4 border-[var(--rule)] h-20 sm:h-24 leading-none pt-3 whitespace-nowrap"
        aria-live="polite"
      >
        {text || '—'} <span className="text-3xl soft">{unit}</span>
      </output>
      {wrong && (
        <p className="warn font-bold text-lg" role="alert">
          {wrong}
        </p>
      )}
      <div className="grid grid-cols-3 gap-2">
        {DIGITS.map((digit) => (
          <button
            key={digit}
            type="button"
            className="btn btn-line border figure h-[68px] text-3xl"
            onClick={() => press(digit)}
          >
            {digit}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-line border h-[68px] text-2xl"
          aria-label="Take the last digit back"
          onClick={back}
        >
          ⌫
        </button>
        <button type="button" className="btn btn-line border figure h-[68px] text-3xl" onClick={() => press('0')}>
          0
        </button>
        <button type="button" className="btn btn-line border figure h-[68px] text-3xl" onClick={() => press('.')}>
          .
        </button>
      </div>
      <div className="flex gap-2">
        <button type="button" data-leaves className="btn btn-line bench-target flex-1" onClick={onClose}>
          Not now
        </button>
        <button
          type="button"
          className="btn btn-accent bench-target flex-[2] text-xl"
          disabled={text === ''}
          onClick={enter}
        >
          Enter
        </button>
      </div>
    </div>
  );
}
