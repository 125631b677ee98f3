/** What a finding says: `says` tells what is wrong, `todo` what to do; `{fact}` is replaced by the finding's fact of that name. */
export interface Sentence {
  readonly severity: 'error' | 'warning' | 'note';
  readonly says: string;
  readonly todo: string;
}
