/**
 * Whether colours are shown: on a terminal, unless NO_COLOR says otherwise or the terminal is a dumb one; anywhere where FORCE_COLOR says so. Source: no-color.org,
 * force-color.org.
 */
export function showsColours(isTerminal: boolean, env: Readonly<Record<string, string | undefined>>): boolean {
  if (env.NO_COLOR) return false;
  if (env.FORCE_COLOR !== undefined && env.FORCE_COLOR !== '') return env.FORCE_COLOR !== '0';
  return isTerminal && env.TERM !== 'dumb';
}
