import { change, writing } from '../db/pool';

const EVERY_MS = 5000;

/** Says again and again, until it is ended, that a part of the application is alive. */
export function heartbeat(part: 'worker'): () => void {
  const beat = () =>
    writing((c) =>
      change(
        c,
        'INSERT INTO heartbeat (part, at) VALUES (?, UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE at = VALUES(at)',
        [part],
      ),
    ).catch(() => undefined);
  void beat();
  const timer = setInterval(() => void beat(), EVERY_MS);
  return () => clearInterval(timer);
}
