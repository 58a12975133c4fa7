import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Origin } from '../../../contract/orders.ts';
import { REASONS } from '../../../core/yield/grades.ts';
import { queries } from '../../api/queries.ts';
import { dateText } from '../../parts/dates.ts';
import { useTaste } from '../../parts/taste.tsx';

/** Where the baits of a bag can have come from, and all that is known of those cups. */
export function CameFrom({ code }: { code: string }) {
  const origins = useQuery(queries.origin(code)).data?.items;
  if (!origins) return null;
  return (
    <section aria-label="Poured in" className="flex flex-col gap-4">
      <h2>Poured in</h2>
      {origins.map((origin) => (
        <Cup key={origin.pourId} origin={origin} />
      ))}
    </section>
  );
}

function Cup({ origin }: { origin: Origin }) {
  const { text } = useTaste();
  const { hardness, lots, molds } = origin;
  return (
    <div className="border-l-2 border-[var(--edge)] pl-3">
      <p className="text-lg">
        <Link to={`/pours/${origin.pourId}`} className="link figure">
          {origin.pourCode}
        </Link>
        , <b className="figure">{origin.baits}</b> of its baits
        {origin.pouredAt && <span className="soft">, {dateText(origin.pouredAt)}</span>}
      </p>
      <p>
        {hardness ? (
          <>
            Hardness <b className="figure">{hardness.mean.toFixed(0)}</b> on the {hardness.scale} scale, of{' '}
            {hardness.readings} {hardness.readings === 1 ? 'reading' : 'readings'}
          </>
        ) : (
          <span className="soft">Hardness not read</span>
        )}
      </p>
      <p>
        {lots.length === 0 ? (
          <span className="soft">No lots are known of it</span>
        ) : (
          lots
            .map(({ materialName, lotCode, grams }) => `${materialName} ${lotCode} (${text(grams, 'mass')})`)
            .join(', ')
        )}
      </p>
      <ul>
        {molds.map(({ moldId, moldName, shots, cavities, lay, rejects }) => (
          <li key={moldId}>
            <Link to={`/molds/${moldId}`} className="link">
              {moldName}
            </Link>
            : {shots} {shots === 1 ? 'shot' : 'shots'},{' '}
            {cavities.length === 0
              ? 'cavities not marked'
              : `${cavities.length === 1 ? 'cavity' : 'cavities'} ${cavities.join(', ')}`}
            , they lay {lay.length > 0 ? lay.join(' and ') : 'as nobody noted'}
            {rejects.length > 0 && (
              <span className="warn">
                {' '}
                ({rejects.map(({ reason, count }) => `${count} ${REASONS[reason] ?? reason}`).join(', ')})
              </span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
