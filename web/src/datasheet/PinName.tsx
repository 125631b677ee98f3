/** Whether a pin's name says that it acts when low: a small n at its end, which is shown as a bar above. */
export const isLow = (name: string): boolean => /[A-Z0-9]n$/.test(name);

/** A pin's name as text, the bar of a low-acting pin drawn over it. */
export function PinName({ name }: { readonly name: string }) {
  return isLow(name) ? <span style={{ textDecoration: 'overline' }}>{name.slice(0, -1)}</span> : name;
}
