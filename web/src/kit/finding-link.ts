import { type Finding, placeText } from '@saddlebag/core';

/** What a link calls a finding by: its code and its place. */
export const findingLink = (f: Finding): string => `${f.code} ${placeText(f)}`.trim().slice(0, 200);
