import { useQuery } from '@tanstack/react-query';
import { queries } from '../../api/queries.ts';
import { Square } from '../../parts/Square.tsx';

/** How the bench tablet gets in, and why over https. */
export function Tablet() {
  const { data } = useQuery(queries.network);
  const [first] = data?.urls ?? [];
  if (!first) {
    return (
      <section className="flex flex-col gap-3">
        <h2 className="text-2xl">The bench tablet</h2>
        <p>
          This workshop answers on its own computer only. Start it with{' '}
          <b className="figure text-sm">npm start -- --lan</b> to let a tablet or a phone in the same Wi-Fi in; it then
          asks for a passcode.
        </p>
      </section>
    );
  }
  return (
    <section className="flex flex-col gap-3">
      <h2 className="text-2xl">The bench tablet</h2>
      <div className="flex gap-5 flex-wrap items-start">
        <Square text={first} says={`Code of the address ${first}`} sizePx={170} />
        <div className="flex flex-col gap-2 flex-1 min-w-60">
          <p className="figure wrap-anywhere">{data?.urls.join(', ')}</p>
          <p>
            The first time a browser warns, since it does not know this workshop yet. Let it trust the workshop’s own
            certificate, once on each tablet:
          </p>
          <ol className="list-decimal pl-5 flex flex-col gap-1">
            <li>
              On the tablet, open the address above with <b className="figure text-sm">http</b> instead of https, or
              take the{' '}
              <a href="/api/root-certificate" className="link" download>
                certificate
              </a>{' '}
              over by cable.
            </li>
            <li>Install it: in the tablet’s settings, under security or general, as a CA certificate or profile.</li>
            <li>On tablets that ask for it, switch its trust on. Then open the https address and keep it.</li>
          </ol>
          <p className="soft text-sm">
            Without it everything works but two things: the screen does not stay awake by itself, and the pages do not
            open while the Wi-Fi is gone. The key lies in the data folder, readable by its owner only, and in no backup.
          </p>
        </div>
      </div>
    </section>
  );
}
