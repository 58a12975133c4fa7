import { moldWays } from '../../../core/shape/suits.ts';
import { BALLS_MM, LEFTOVER_MM } from '../../../core/shape/toolReach.ts';
import { WAYS_UP, type WayUp } from '../../../core/water/assumed.ts';
import { leanWord } from '../../parts/solid/lean.ts';
import { useTaste } from '../../parts/taste.tsx';
import { MOLD_WAY_WORDS } from '../../parts/words/mold.ts';
import { Fact, notYet, type JudgeProps as Props } from './judging.tsx';
import { SHOWN_WORDS, type Shown } from './show.ts';

const wayWord = (direction: number[]) => {
  const [x, y, z] = direction.map(Math.abs) as [number, number, number];
  return z >= x && z >= y ? 'up and down' : y >= x ? 'sideways' : 'along the length';
};

const SIGN = { yes: '●', care: '◐', no: '○' } as const;

/** Which molds it comes out of, where air stays in them and what a cutter leaves. */
export function Demold({ spec, judged, problem, assumed, onAssume, shown, onShow }: Props) {
  const { text } = useTaste();
  const { parting, thickness, traps, tilt, cutter, measured } = judged;
  const yet = notYet(problem);
  const others = traps?.filter((trap) => !trap.pour) ?? [];
  const ways =
    parting && thickness && measured
      ? moldWays({
          parting: { ...parting, areaMm2: measured.areaMm2 },
          thinnestMm: thickness.thinnestMm,
          thickestMm: thickness.thickestMm,
          leftoverMm: cutter?.leftoverMm ?? null,
          largestBallMm: cutter?.largestBallMm ?? null,
          boreMm: spec?.bore?.diameterMm ?? null,
          round:
            spec !== null && spec.flatBelly === 0 && spec.ribs === null && spec.limbs.length === 0 && spec.fin === null,
        })
      : [];
  return (
    <div className="flex flex-col gap-2">
      <ColouredBy shown={shown} onShow={onShow} />
      <ul className="ruled text-sm">
        {ways.map((verdict) => (
          <li key={verdict.way} className="py-1 flex gap-2">
            <span aria-hidden className={verdict.suits === 'yes' ? 'rest' : verdict.suits === 'no' ? 'soft' : 'warn'}>
              {SIGN[verdict.suits]}
            </span>
            <span>
              <span className="font-bold">{MOLD_WAY_WORDS[verdict.way]}</span>{' '}
              <span className="sr-only">{{ yes: 'suits', care: 'with care', no: 'does not suit' }[verdict.suits]}</span>
              <span className={verdict.suits === 'no' ? 'soft' : ''}>{verdict.because}</span>
            </span>
          </li>
        ))}
      </ul>
      <ul className="ruled text-sm">
        <Fact label="Best pull" value={parting ? wayWord(parting.direction) : yet} />
        <Fact
          label="Undercut"
          value={parting ? `${(parting.undercutFraction * 100).toFixed(1)} %` : yet}
          bad={(parting?.undercutFraction ?? 0) > 0.03}
        />
        <li className="py-1 flex items-center justify-between gap-2">
          <label htmlFor="way-up">Poured with which end up</label>
          <select
            id="way-up"
            className="select select-sm w-28"
            value={assumed.wayUp}
            onChange={(event) => onAssume({ wayUp: event.target.value as WayUp })}
          >
            {(Object.keys(WAYS_UP) as WayUp[]).map((one) => (
              <option key={one} value={one}>
                {one}
              </option>
            ))}
          </select>
        </li>
        <Fact
          label={`Air, ${assumed.wayUp} up`}
          value={
            traps
              ? others.length === 0
                ? 'one high point'
                : `${others.length} more high point${others.length === 1 ? '' : 's'}`
              : yet
          }
          bad={others.length > 0}
        />
        <Fact
          label="Tilt for least air"
          value={
            tilt
              ? tilt.tiltDeg < 1
                ? 'none needed'
                : `${tilt.tiltDeg.toFixed(0)}°, ${leanWord(tilt.direction, WAYS_UP[assumed.wayUp])}: ${tilt.trappedMl < 0.005 ? 'none stays' : `${tilt.trappedMl.toFixed(2)} mL stays`}`
              : yet
          }
        />
        <Fact
          label={`A ball of ${text(assumed.ballMm, 'length')} leaves`}
          value={cutter ? text(cutter.leftoverMm, 'length') : yet}
          bad={(cutter?.leftoverMm ?? 0) > LEFTOVER_MM}
        />
        <Fact
          label="Largest that reaches all"
          value={
            cutter
              ? cutter.largestBallMm === null
                ? `none from ${text(cutter.knownFromMm, 'length')} on: ease the corners`
                : text(cutter.largestBallMm, 'length')
              : yet
          }
        />
      </ul>
      <label className="flex items-center gap-2 text-sm">
        <span className="flex-1">Ball cutter</span>
        <select
          className="select select-sm w-24"
          value={assumed.ballMm}
          onChange={(event) => onAssume({ ballMm: Number(event.target.value) })}
        >
          {BALLS_MM.map((mm) => (
            <option key={mm} value={mm}>
              {text(mm, 'length')}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

/** What the solid is coloured by. */
function ColouredBy({ shown, onShow }: { shown: Shown; onShow(shown: Shown): void }) {
  return (
    <fieldset className="flex flex-wrap gap-1" aria-label="Colour the solid by">
      {(Object.keys(SHOWN_WORDS) as Shown[]).map((one) => (
        <button
          key={one}
          type="button"
          className={`btn btn-xs ${shown === one ? 'btn-primary' : 'bg-transparent border-[var(--edge)]'}`}
          aria-pressed={shown === one}
          onClick={() => onShow(one)}
        >
          {SHOWN_WORDS[one]}
        </button>
      ))}
    </fieldset>
  );
}
