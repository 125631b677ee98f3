/** A name cut to `length` characters; the number behind a dot (`DRY.12`) is kept, since it tells pieces apart. */
export function shortName(name: string, length: number): string {
  const dot = name.lastIndexOf('.');
  if (dot < 0 || name.length <= length) return name.slice(0, length);
  const end = name.slice(dot);
  return name.slice(0, Math.max(1, length - end.length)) + end;
}
