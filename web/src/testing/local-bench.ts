import { PowerBench } from '../base/bench';
import { LocalRunner } from '../workers/bench-runner';

/** A bench whose board runs in place: what it shows is there at once. */
export const localBench = (): PowerBench => new PowerBench((tell) => new LocalRunner(tell));
