import * as v from 'valibot';
import { CUP_BOUNDS_C, cupC } from '../../../contract/fields.ts';
import type { Heat } from '../../../contract/pours.ts';
import { usual } from '../../../core/defaults.ts';
import { convert } from '../../../core/units/convert.ts';
import { useTaste } from '../../parts/taste.tsx';
import { DoseDialog, UnreadDialog } from './BenchDialogs.tsx';
import { GradeDialog } from './GradeDialog.tsx';
import { Keypad } from './Keypad.tsx';
import type { AtTheCup } from './useAtTheCup.ts';

const HEAT_KINDS = [
  { value: 'cook', label: 'Cooked' },
  { value: 'reheat', label: 'Reheated' },
  { value: 'reading', label: 'Reading' },
];

/** What the bench asks for over itself: a temperature, a dose, a shot without a reading, what went wrong in a cavity. */
export function AskedAtTheCup({ at }: { at: AtTheCup }) {
  const { pour, folded, materials, write, pad, setPad, dosing, setDosing, unread, setUnread, pointed, setPointed } = at;
  const taste = useTaste();
  /** Keeps a reading, or says why that is none. */
  const read = (value: number, kind: Heat['kind']) => {
    const unit = taste.unit('temperature');
    const from = taste.taste.temperature;
    const { value: c } = convert({ value, from, to: 'C', dropsPerMl: usual('dropsPerMl'), measures: [] });
    if (!v.is(cupC, c)) {
      const [low, high] = CUP_BOUNDS_C.map((bound) => taste.text(bound, 'temperature'));
      return `${value} ${unit} is no cup: it lies between ${low} and ${high}. Type it again.`;
    }
    write.read(kind, c, `${value} ${unit}`);
    setPad(null);
    return null;
  };
  return (
    <>
      <Keypad
        open={pad !== null}
        title="Cup temperature, after stirring"
        unit={taste.unit('temperature')}
        kinds={HEAT_KINDS}
        startKind={pad ?? 'reading'}
        onClose={() => setPad(null)}
        onEnter={(value, kind) => read(value, kind as Heat['kind'])}
      />
      <DoseDialog
        open={dosing}
        onClose={() => setDosing(false)}
        pour={pour}
        doses={folded.doses}
        materials={materials}
        onAsWritten={() => {
          write.doseAsWritten();
          setDosing(false);
        }}
      />
      <UnreadDialog
        mold={unread?.mold ?? null}
        cup={at.cups.length > 1 ? pour.recipeName : null}
        onClose={() => setUnread(null)}
        onRead={() => {
          setUnread(null);
          setPad('cook');
        }}
        onDrawn={() => {
          if (unread) write.drawn(unread.mold, unread.go, unread.into);
          setUnread(null);
        }}
      />
      <GradeDialog
        at={pointed}
        layers={at.lead.layers}
        onRedo={(layer) => {
          if (pointed) write.redone(pointed.shot, pointed.mold, layer, pointed.cavity);
          setPointed(null);
        }}
        onClose={() => setPointed(null)}
        onMark={(grade, reason) => {
          if (pointed) write.mark(pointed.shot, [{ cavity: pointed.cavity, grade, ...(reason ? { reason } : {}) }]);
          setPointed(null);
        }}
      />
    </>
  );
}
