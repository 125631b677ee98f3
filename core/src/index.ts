/** The public face of core. Job files come in through `@saddlebag/core/job-reader`, HiGHS through `/solver`. */
export * from './board';
export * from './card';
export * from './catalogue';
export * from './design';
export * from './electrical';
export * from './element-at';
export * from './finding';
export * from './inspection';
export * from './job';
export * from './logic';
export * from './packing';
export * from './planning';
export * from './simulation';
export * from './workflow';
