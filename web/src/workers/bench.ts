import type { BenchMessage, BenchPicture } from './bench.worker';
import type { RunnerFor } from './bench-protocol';

/** Runs boards in a worker, started when the power first comes on; pictures of a run that has ended are not told. */
export const workerRunner: RunnerFor = (tell) => {
  let worker: Worker | null = null;
  let run = 0;
  const send = (message: BenchMessage): void => worker?.postMessage(message);
  const begin = (): Worker => {
    const made = new Worker(new URL('./bench.worker.ts', import.meta.url), { type: 'module', name: 'bench' });
    made.addEventListener('message', ({ data }: MessageEvent<BenchPicture>) => {
      send({ kind: 'seen' });
      if (data.run === run) tell(data.state);
    });
    return made;
  };
  return {
    start(board, settings) {
      worker ??= begin();
      send({ kind: 'start', board, settings, run: ++run });
    },
    setSwitches: (positions) => send({ kind: 'switches', positions }),
    setDials: (positions) => send({ kind: 'dials', positions }),
    setPace: (speed, isPaused) => send({ kind: 'pace', speed, isPaused }),
    setNumbers: (numbers) => send({ kind: 'numbers', numbers }),
    setTraced: (pins) => send({ kind: 'traced', pins }),
    setScope: (scope) => send({ kind: 'scope', scope }),
    setMark: (mark, at) => send({ kind: 'mark', mark, at }),
    moveMark: (mark, name, isForward) => send({ kind: 'move-mark', mark, name, isForward }),
    writeTrace: (as) => send({ kind: 'write-trace', as }),
    step: () => send({ kind: 'step' }),
    inTime: (command) => send({ kind: 'time', command }),
    stop() {
      run++;
      send({ kind: 'stop' });
    },
  };
};
