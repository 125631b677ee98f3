/** Orders names as people count them: q2 before q10. */
export function compareNames(a: string, b: string): number {
  return a.localeCompare(b, 'en', { numeric: true });
}

/** Gives outside names a form the sheet can have, each its own; keeps those that fit. */
export class SheetNames {
  private readonly given = new Map<string, string>();
  private readonly taken = new Set<string>();

  constructor(reserved: Iterable<string>) {
    for (const word of reserved) this.taken.add(word);
  }

  of(outside: string): string {
    const known = this.given.get(outside);
    if (known !== undefined) return known;
    const letters = outside.replaceAll("'", '_n').replace(/[^A-Za-z0-9_]/g, '_');
    const stem = /[A-Za-z_]/.test(letters) ? letters : `n${letters}`;
    let name = stem;
    for (let k = 2; this.taken.has(name); k++) name = `${stem}_${k}`;
    this.taken.add(name);
    this.given.set(outside, name);
    return name;
  }
}
