import type { Sentence } from './sentence';

/** What stands in the way of a packing, and what the drawer may have wrong. */
export const packingSentences = {
  // packing
  'drawer/too-long': {
    severity: 'error',
    says: 'The list has {lines} lines; the first {limit} are read.',
    todo: 'Join lines of one part: a part needs one line.',
  },
  'drawer/no-part': {
    severity: 'error',
    says: 'Line {line}: no part is known as {part}.',
    todo: 'Write the number as printed on the chip, such as 74HC00 or SN74LS00N, or a value, such as 10k or 100n.',
  },
  'drawer/bad-number': {
    severity: 'error',
    says: 'Line {line} has no count from 0 to {limit}, or no price: {text}',
    todo: 'Write part, count, price, such as 74HC00,4,0.45.',
  },
  'pack/no-drawer': {
    severity: 'note',
    says: 'No drawer is kept yet.',
    todo: 'List the chips that the lab has in the drawer.',
  },
  'pack/drawer-short': {
    severity: 'error',
    says: 'This design cannot be built with the {chips} kinds of chips in the drawer.',
    todo: 'See under the other strategies what is missing, or put more into the drawer.',
  },
  'pack/drawer-lacks': {
    severity: 'error',
    says: 'This design cannot be built from the drawer; this is the nearest, and it lacks {parts}.',
    todo: 'Get those, or put more into the drawer.',
  },
  'pack/missing': {
    severity: 'error',
    says: 'The drawer has {have} of the {need} {part} that this takes.',
    todo: 'Get {short} more, or build it from the drawer.',
  },
  'pack/no-way': {
    severity: 'error',
    says: 'No way was found to build these {gates} gates with {strategy}; excluded: {excluded}.',
    todo: 'Allow more chips, or give it more time.',
  },
  'pack/pin-gone': {
    severity: 'note',
    says: '{net} is pinned to {ref}, and the sheet has no gate {net} any more: the pin is ignored.',
    todo: 'Unpin {net}, or bring its gate back.',
  },
  'pack/pin-chip': {
    severity: 'error',
    says: '{net} is pinned to {ref}, a {part}, and {strategy} does not use that chip or it is excluded.',
    todo: 'Unpin {net}, allow the {part} again, or choose another strategy.',
  },
  'pack/pin-cannot': {
    severity: 'error',
    says: '{net} is pinned to {ref}, a {part} ({title}), and no way was found to make {net} with such a unit.',
    todo: 'Unpin {net}, or pin it to a unit of its own kind.',
  },
  'pack/pin-idle': {
    severity: 'error',
    says: '{net} is pinned to {ref}, but its function is that of an input or a constant, so no unit makes it.',
    todo: 'Unpin {net}, or build as written.',
  },
  'pack/pin-same': {
    severity: 'error',
    says: '{net} and {other} are one signal when they are built with {strategy}, and only one of them can be pinned.',
    todo: 'Unpin one of the two, or build as written.',
  },
  'pack/uses-excluded': {
    severity: 'warning',
    says: 'This packing uses chips that are excluded since: {parts}.',
    todo: 'Pack again.',
  },
  'pack/not-as-held': {
    severity: 'warning',
    says: 'This packing was made before a gate was pinned or a package added.',
    todo: 'Pack again.',
  },
  'pack/pins-together': {
    severity: 'error',
    says: 'No packing was found with {nets} all pinned where they are.',
    todo: 'Unpin them one at a time, or allow more chips.',
  },
  'pack/held-short': {
    severity: 'error',
    says: '{need} packages of {part} are asked for by hand, and the drawer has {have}.',
    todo: 'Unpin gates or take an added package away, or put more into the drawer.',
  },
  'pack/wrong': {
    severity: 'error',
    says: 'The packing made was wrong ({wrong}) and is not shown.',
    todo: 'Please report this with the job file; the gates can be packed as written meanwhile.',
  },
  'pack/no-solution': {
    severity: 'error',
    says: 'The integer program found no packing ({status}).',
    todo: 'Report this sheet: each gate can be built from the chips known here.',
  },
  'family-not-made': {
    severity: 'note',
    says: '{ref}: no {base} is made in {family}; it is a {part}.',
    todo: 'Nothing, where its levels meet the others; Inspect tells where they do not.',
  },
  'family-not-in-drawer': {
    severity: 'note',
    says: '{ref}: the drawer has no {base} left that goes with {family}; it is a {part}.',
    todo: 'Get one, or pack from the drawer, which builds with what there is.',
  },
} as const satisfies Record<string, Sentence>;
