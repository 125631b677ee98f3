import { PLAIN_TEXT } from '../job';

/** Whether a text may name something: not empty, plain, and no longer than `most` characters. */
export function isName(text: string, most: number): boolean {
  return text.trim() !== '' && text.length <= most && PLAIN_TEXT.test(text);
}
