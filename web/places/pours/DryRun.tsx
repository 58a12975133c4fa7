import { useEffect, useState, useSyncExternalStore } from 'react';
import { Link, useParams } from 'react-router';
import { LESSONS, type Lesson } from '../../../core/drill/lessons.ts';
import { BEFORE_THE_HEAT } from '../../../core/process/evidence.ts';
import { durationText } from '../../../core/units/show.ts';
import { REASONS } from '../../../core/yield/grades.ts';
import { Page } from '../../parts/Page.tsx';
import { useTaste } from '../../parts/taste.tsx';
import { Standing, useStandingHere } from './Bench.tsx';
import { BenchRoomContext } from './benchRoom.ts';
import { lessonMaterials } from './dryRunPour.ts';
import { DryRunRoom, SPEEDS, WAITS_S } from './dryRunRoom.ts';

/** The same luck at every repetition of a lesson; another with every new number. */
const FIRST_SEED = 7;

/** The five lessons: the bench without plastisol. */
export function DryRuns() {
  const { text, say } = useTaste();
  return (
    <Page
      title="Dry run"
      tab="Dry run"
      under="The same bench, no plastisol: cook, read, pour and wait by a clock that can run sixtyfold; then what each choice cost."
    >
      <ol className="ruled border-y border-[var(--rule)]">
        {LESSONS.map((lesson, index) => (
          <li key={lesson.id} className="flex gap-5 py-4 items-center flex-wrap">
            <span className="figure text-3xl w-8">{index + 1}</span>
            <span className="flex-1 min-w-60">
              <b className="text-xl block">{lesson.name}</b>
              <span>{say(lesson.teaches)}</span>
              <span className="label-small block">
                {lesson.molds.map((mold) => `${mold.shots} shots of ${mold.name}`).join(', ')}, {lesson.layers.length}{' '}
                {lesson.layers.length === 1 ? 'cup' : 'cups'}, room at {text(lesson.roomC, 'temperature')}
              </span>
            </span>
            <Link to={`/dry-run/${lesson.id}`} className="btn btn-primary bench-target">
              Begin
            </Link>
          </li>
        ))}
      </ol>
      <p className="soft">
        Nothing of it is recorded. Its faults come of a model made for training: what leads to what is workshop
        practice, how often is a guess.
      </p>
    </Page>
  );
}

export function DryRun() {
  const { lesson: id = '' } = useParams();
  const lesson = LESSONS.find((one) => one.id === id);
  const [seed, setSeed] = useState(FIRST_SEED);
  const [turn, setTurn] = useState(0);
  if (!lesson)
    return (
      <Page title="No such lesson" tab="Dry run">
        <Link to="/dry-run" className="link">
          All lessons
        </Link>
      </Page>
    );
  return (
    <Evening
      key={`${lesson.id} ${turn}`}
      lesson={lesson}
      seed={seed}
      onAgain={(other) => {
        if (other) setSeed(seed + 1);
        setTurn(turn + 1);
      }}
    />
  );
}

interface EveningProps {
  lesson: Lesson;
  seed: number;
  /** Once more, with the same luck or another. */
  onAgain(other: boolean): void;
}

function Evening({ lesson, seed, onAgain }: EveningProps) {
  const [begun, setBegun] = useState(false);
  return begun ? (
    <Run lesson={lesson} seed={seed} onAgain={onAgain} />
  ) : (
    <Brief lesson={lesson} onBegin={() => setBegun(true)} />
  );
}

function Brief({ lesson, onBegin }: { lesson: Lesson; onBegin(): void }) {
  const { say } = useTaste();
  return (
    <Page title={lesson.name} tab="Dry run" under={say(lesson.teaches)}>
      <ul className="text-xl list-disc pl-6 flex flex-col gap-1">
        {lesson.brief.map((one) => (
          <li key={one.text}>{say(one)}</li>
        ))}
      </ul>
      <div className="caution">
        <p className="font-bold">With plastisol in the cup, before any heat:</p>
        <p>{BEFORE_THE_HEAT.join('. ')}.</p>
      </div>
      <div className="flex gap-3">
        <button type="button" className="btn btn-primary bench-target" onClick={onBegin}>
          To the bench
        </button>
        <Link to="/dry-run" className="btn btn-ghost bench-target border border-[var(--edge)]">
          Another lesson
        </Link>
      </div>
    </Page>
  );
}

function Run({ lesson, seed, onAgain }: EveningProps) {
  const [run, setRun] = useState<DryRunRoom | null>(null);
  useEffect(() => {
    const made = new DryRunRoom(lesson, seed);
    setRun(made);
    return () => made.end();
  }, [lesson, seed]);
  return run ? <Running run={run} onAgain={onAgain} /> : null;
}

function Running({ run, onAgain }: { run: DryRunRoom; onAgain(other: boolean): void }) {
  useStandingHere();
  useSyncExternalStore(
    (changed) => run.onChange(changed),
    () => `${run.closed} ${run.speed}`,
  );
  if (run.closed) return <Debriefed run={run} onAgain={onAgain} />;
  return (
    <BenchRoomContext.Provider value={run.room}>
      <div className="h-full flex flex-col">
        <section className="shrink-0 flex gap-3 items-center px-3 sm:px-6 pt-2 flex-wrap" aria-label="Dry run">
          <b className="text-lg">Dry run: {run.lesson.name}</b>
          <span className="soft max-lg:hidden">nothing is recorded</span>
          <span className="ml-auto flex gap-1.5 items-center">
            {SPEEDS.map((speed) => (
              <button
                key={speed}
                type="button"
                className={`btn h-16 min-h-16 px-4 figure ${run.speed === speed ? 'btn-line' : 'btn-ghost border border-[var(--edge)]'}`}
                aria-pressed={run.speed === speed}
                onClick={() => run.setSpeed(speed)}
              >
                {speed}×
              </button>
            ))}
            <button
              type="button"
              className="btn btn-ghost border border-[var(--edge)] h-16 min-h-16 px-4"
              onClick={() => run.wait(WAITS_S)}
            >
              Wait {WAITS_S} s
            </button>
            <button
              type="button"
              className="btn btn-ghost border border-[var(--edge)] h-16 min-h-16 px-4"
              onClick={() => run.room.close?.()}
            >
              Stop
            </button>
          </span>
        </section>
        <div className="flex-1 min-h-0">
          <Standing pours={run.pours} inHand={run.pours[0].id} materials={lessonMaterials(run.lesson)} />
        </div>
      </div>
    </BenchRoomContext.Provider>
  );
}

/** What came of it, and which choice cost what. */
function Debriefed({ run, onAgain }: { run: DryRunRoom; onAgain(other: boolean): void }) {
  const taste = useTaste();
  const { made, good, costs, seconds } = run.debrief();
  const dear = costs.filter(({ spoiled }) => spoiled > 0);
  const lucky = costs.filter(({ spoiled }) => spoiled === 0);
  return (
    <Page title={`${run.lesson.name}: what came of it`} tab="Dry run">
      <p className="text-2xl">
        {made === 0 ? (
          'No shot was drawn.'
        ) : (
          <>
            <b className="figure text-4xl">{good}</b> of <b className="figure text-4xl">{made}</b> baits are good, after{' '}
            {durationText(seconds)} at the bench.
          </>
        )}
      </p>
      {dear.length > 0 && (
        <section aria-label="What it cost">
          <h2 className="text-2xl mb-1">What it cost</h2>
          <ul className="ruled border-y border-[var(--rule)]">
            {dear.map(({ id, say, baits, spoiled, reason, shots }) => (
              <li key={id} className="py-3 flex gap-5 items-baseline flex-wrap">
                <span className="figure text-3xl w-16 heat">−{spoiled}</span>
                <span className="flex-1 min-w-60">
                  <b className="text-lg block">{taste.say(say)}</b>
                  <span className="soft">
                    {REASONS[reason]}; in {shots} {shots === 1 ? 'shot' : 'shots'}.{' '}
                    {baits > 0
                      ? `Done right, and all else as it was, ${baits} more would be good.`
                      : 'Done right alone it would have saved none: something else spoils them too.'}
                  </span>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {lucky.length > 0 && (
        <section aria-label="Forgiven this time">
          <h2 className="text-xl mb-1">Forgiven this time</h2>
          <ul className="list-disc pl-6">
            {lucky.map(({ id, say }) => (
              <li key={id}>{taste.say(say)}</li>
            ))}
          </ul>
          <p className="soft">Luck carried the baits over these, or something else had spoiled them first.</p>
        </section>
      )}
      {costs.length === 0 && made > 0 && <p className="text-xl rest font-bold">Nothing that was done cost a bait.</p>}
      <div className="flex gap-3 flex-wrap">
        <button type="button" className="btn btn-primary bench-target" onClick={() => onAgain(false)}>
          Once more, the same evening
        </button>
        <button type="button" className="btn btn-line bench-target" onClick={() => onAgain(true)}>
          Once more, another luck
        </button>
        <Link to="/dry-run" className="btn btn-ghost bench-target border border-[var(--edge)]">
          All lessons
        </Link>
      </div>
    </Page>
  );
}
