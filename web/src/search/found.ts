import { foundKinds, type Searchable } from '../base/searchable';

/** So many of a kind are listed; more words find the others. */
const MOST_OF_A_KIND = 8;
/** Without words only what is nearest is listed. */
const MOST_AT_FIRST = 6;

const plain = (text: string): string => text.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, '');

/**
 * What fits some words, by kind and within a kind the better first: all words must be in the title or the detail, a title that begins with them comes before
 * one that has them, and that before a detail.
 */
export function found(all: readonly Searchable[], words: string): readonly Searchable[] {
  const asked = plain(words).split(/\s+/).filter(Boolean);
  const rankOf = ({ title, detail, rank }: Searchable): number | null => {
    if (rank !== undefined) return rank;
    const [name, more] = [plain(title), plain(detail)];
    if (!asked.every((word) => name.includes(word) || more.includes(word))) return null;
    if (asked.length === 0 || name.startsWith(asked.join(' '))) return 0;
    return asked.every((word) => name.includes(word)) ? 1 : 2;
  };
  const ranked = all.flatMap((one) => {
    const rank = rankOf(one);
    return rank === null ? [] : [{ one, rank }];
  });
  const most = asked.length === 0 ? MOST_AT_FIRST : MOST_OF_A_KIND;
  const byKind = foundKinds.map((kind) =>
    ranked
      .filter(({ one }) => one.kind === kind)
      .sort((a, b) => a.rank - b.rank)
      .slice(0, most),
  );
  // A kind whose best fits better comes first; at the beginning steps and actions do.
  const best = (list: (typeof byKind)[number]): number => list[0]?.rank ?? Number.POSITIVE_INFINITY;
  return byKind.sort((a, b) => best(a) - best(b)).flatMap((list) => list.map(({ one }) => one));
}
