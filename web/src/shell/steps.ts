/** The six steps in the order of the job. */
export const stepIds = ['design', 'pack', 'board', 'inspect', 'power', 'card'] as const;
/** A step by the word that stands in its address. */
export type StepId = (typeof stepIds)[number];

/** Steps as the strap names them. */
export const stepTitles: Readonly<Record<StepId, string>> = {
  design: 'Design',
  pack: 'Pack',
  board: 'Board',
  inspect: 'Inspect',
  power: 'Power up',
  card: 'Build card',
};
