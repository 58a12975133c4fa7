import { Link } from 'react-router';
import { Caution } from '../../parts/Caution.tsx';
import { Page } from '../../parts/Page.tsx';

const STAGES: {
  name: string;
  to: string;
  say: string;
  wrong: string;
  caution?: Parameters<typeof Caution>[0]['about'];
}[] = [
  {
    name: 'Master',
    to: '/masters',
    say: 'The bait copies the master’s skin and every bend of it. Wet-sand from 600 grit up, seal thin; lay it straight.',
    wrong: 'A curved master runs crooked for the life of the mold.',
    caution: ['clay', 'design'],
  },
  {
    name: 'Mold',
    to: '/molds',
    say: 'Flat back down, glued thinly. 8–12 mm of wall around and over. Level box, level bench. Mix what the plan says, start the clock.',
    wrong: 'Twice as much mixed as needed, or not enough and a second mix in a rush.',
    caution: ['rubber', 'vacuum'],
  },
  {
    name: 'Colour',
    to: '/colours',
    say: 'Dose and look, but count: one tap a dose. Thin parts look paler, so dose to the bait, not to the cup.',
    wrong: 'Nobody remembers the total.',
    caution: ['powder'],
  },
  {
    name: 'Cook',
    to: '/pours',
    say: 'Virgin: about two minutes a cup, stir, then bursts of 30–60 s with a stir between. Milk, lumps, clear syrup. To about 175 °C. Stir with something round, slowly.',
    wrong: 'Past 190–200 °C it scorches and the batch is lost.',
    caution: ['hot', 'scorch'],
  },
  {
    name: 'Pour',
    to: '/pours',
    say: 'Stir just before drawing: flake and salt sink. Keep the sprue topped until it stops sinking. Tail first, tilted, in a deep mold.',
    wrong: 'A hollow nose: the sprue was not topped up.',
  },
  {
    name: 'Cool and look',
    to: '/rack',
    say: 'Open when the clock says; lay each bait flat and straight, it sets as it lies. Each cavity is to sell, for own water or to melt again, and why.',
    wrong: 'Jumbled baits are scrap: bent tails.',
  },
  {
    name: 'Cure',
    to: '/rack',
    say: 'A day before packing, painting or a hardness reading. Read three baits, mid-body.',
    wrong: 'A reading before then is kept, but tells little.',
  },
  {
    name: 'Pack',
    to: '/orders',
    say: 'Oldest cured baits first, n to a bag of laminated film: plasticizer creeps through ordinary ones. The bag’s code leads back to its pour.',
    wrong: 'Found short while packing. The order says it days before.',
  },
];

export function Guide() {
  return (
    <Page title="The order of work" tab="Guide" under="What goes into each step, what goes wrong, and what to wear.">
      <ol className="ruled">
        {STAGES.map((stage, index) => (
          <li
            key={stage.name}
            className="grid grid-cols-[40px_minmax(0,1fr)] lg:grid-cols-[52px_180px_1fr_1fr] gap-6 py-5"
          >
            <span className="big soft">{index + 1}</span>
            <h2 className="text-2xl">
              <Link to={stage.to} className="link">
                {stage.name}
              </Link>
            </h2>
            <div>
              <p>{stage.say}</p>
              <p className="warn font-bold mt-1">{stage.wrong}</p>
            </div>
            <div>{stage.caution && <Caution about={stage.caution} />}</div>
          </li>
        ))}
      </ol>
      <p className="soft max-w-3xl">
        Ventilation moves air outside. A dust mask stops no vapour. Plasticizer burns: lid and a suitable extinguisher,
        never water. Never a food microwave or kitchen glass afterwards. Keep children and pets out.
      </p>
    </Page>
  );
}
