import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { post } from '../api/client.ts';
import { openLiveLine } from '../api/live.ts';
import { sendNow } from '../api/outbox.ts';
import { Refusal, TextField } from '../parts/Fields.tsx';

export function Passcode({ onOpen }: { onOpen(): void }) {
  const [passcode, setPasscode] = useState('');
  const [error, setError] = useState<unknown>();
  const client = useQueryClient();
  const open = async () => {
    try {
      await post('/session', { passcode });
      openLiveLine();
      sendNow();
      await client.resetQueries();
      onOpen();
    } catch (failure) {
      setError(failure);
    }
  };
  return (
    <form
      className="h-dvh flex flex-col gap-4 items-start justify-center max-w-md mx-auto"
      onSubmit={(event) => {
        event.preventDefault();
        void open();
      }}
    >
      <h1>Whose bench is this?</h1>
      <p className="soft">The workshop’s computer shows a passcode where it was started.</p>
      <TextField
        label="Passcode"
        value={passcode}
        onChange={setPasscode}
        type="password"
        autoFocus
        className="w-full"
      />
      <Refusal error={error} />
      <button type="submit" className="btn btn-primary btn-lg">
        Open the workshop
      </button>
    </form>
  );
}
