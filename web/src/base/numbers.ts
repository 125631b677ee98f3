/** The mark before decimals, and how whole numbers are grouped, in the language that the browser is set to. */
export interface NumberMarks {
  readonly decimal: string;
  readonly grouped: (whole: number) => string;
}

/** The marks of a language, by its BCP 47 tag; of the browser's own where none is named. */
export function marksOf(language?: string): NumberMarks {
  const format = new Intl.NumberFormat(language);
  const decimal = format.formatToParts(0.5).find(({ type }) => type === 'decimal')?.value ?? '.';
  return { decimal, grouped: (whole) => format.format(whole) };
}

const own = marksOf();

/** Decimals that stand by themselves: neither `U1.3` nor `b1.e5` is a number, nor is one within a name. */
const decimals = /(?<![\w.]|\w-)(\d+)\.(\d+)(?!\w|\.\d)/g;

/** A text of ours with the decimal mark of the reader's language in its numbers. */
export const inOwnMarks = (text: string, { decimal } = own): string =>
  decimal === '.' ? text : text.replace(decimals, `$1${decimal}$2`);

/** A number with so many decimals. */
export const fixed = (value: number, digits: number, marks = own): string => inOwnMarks(value.toFixed(digits), marks);

/** A whole number, its digits grouped. */
export const grouped = (whole: number, marks = own): string => marks.grouped(whole);

/** A number as people type it, with either decimal mark; not a number where it is none. */
export const readNumber = (text: string): number => Number(text.trim().replace(',', '.'));
