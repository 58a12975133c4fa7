import { useTaps } from '../api/outbox.ts';

/** The shell without its server: what is safe, and what to look at. It goes on by itself. */
export function NoServer() {
  const waiting = useTaps().filter((tap) => !tap.refused).length;
  return (
    <main className="min-h-dvh flex flex-col justify-center gap-5 max-w-2xl mx-auto px-6 py-10" role="status">
      <h1>The workshop’s computer does not answer.</h1>
      <p className="text-lg">
        Is it on, and is this tablet in its Wi-Fi? This page goes on by itself as soon as it is heard.
      </p>
      <p className="soft text-lg">
        What was recorded is safe there.{' '}
        {waiting > 0 &&
          `${waiting === 1 ? 'One tap waits' : `${waiting} taps wait`} in this browser and will be sent then.`}
      </p>
    </main>
  );
}
