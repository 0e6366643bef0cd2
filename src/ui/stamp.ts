const two = (value: number) => String(value).padStart(2, '0');

/** A day in the bench's own time, "2026-11-23". */
export function day(iso: string): string {
  const at = new Date(iso);
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** A time of day, "14:05:09". */
export function time(iso: string): string {
  const at = new Date(iso);
  return `${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}`;
}
