/** How long something lasts by now, minutes and seconds. */
export function Waited({ since, now }: { since: string; now: string }) {
  const seconds = Math.max(0, Math.round((Date.parse(now) - Date.parse(since)) / 1000));
  return (
    <span>
      {Math.floor(seconds / 60)}:{String(seconds % 60).padStart(2, '0')}
    </span>
  );
}
