import type { Board, LiveSettings, LiveState, MarkName, Numbers, Scope, TimeCommand, TraceFile } from '@saddlebag/core';
import type { MarkPlace } from './bench-protocol';
import { LocalRunner } from './bench-runner';

/** What the screen sends to the worker that runs its board; `seen` says that the last picture has been taken. */
export type BenchMessage =
  | { readonly kind: 'start'; readonly board: Board; readonly settings: LiveSettings; readonly run: number }
  | { readonly kind: 'switches'; readonly positions: ReadonlyMap<string, boolean> }
  | { readonly kind: 'dials'; readonly positions: ReadonlyMap<string, number> }
  | { readonly kind: 'pace'; readonly speed: number; readonly isPaused: boolean }
  | { readonly kind: 'scope'; readonly scope: Scope }
  | { readonly kind: 'numbers'; readonly numbers: Numbers }
  | { readonly kind: 'traced'; readonly pins: readonly string[] }
  | { readonly kind: 'mark'; readonly mark: MarkName; readonly at: MarkPlace | null }
  | { readonly kind: 'move-mark'; readonly mark: MarkName; readonly name: string; readonly isForward: boolean }
  | { readonly kind: 'write-trace'; readonly as: TraceFile['kind'] }
  | { readonly kind: 'step' }
  | { readonly kind: 'time'; readonly command: TimeCommand }
  | { readonly kind: 'stop' }
  | { readonly kind: 'seen' };

/** What the worker sends back, with the number of the run that it belongs to. */
export interface BenchPicture {
  readonly run: number;
  readonly state: LiveState;
}

let isWanted = true;
let run = 0;
const runner = new LocalRunner(
  (state) => {
    isWanted = false;
    const { levels, volts, hertz } = state;
    const picture: BenchPicture = { run, state };
    postMessage(picture, { transfer: [levels.buffer, volts.buffer, hertz.buffer] });
  },
  () => isWanted,
  true,
);

addEventListener('message', ({ data }: MessageEvent<BenchMessage>) => {
  switch (data.kind) {
    case 'start':
      run = data.run;
      return runner.start(data.board, data.settings);
    case 'switches':
      return runner.setSwitches(data.positions);
    case 'dials':
      return runner.setDials(data.positions);
    case 'pace':
      return runner.setPace(data.speed, data.isPaused);
    case 'scope':
      return runner.setScope(data.scope);
    case 'numbers':
      return runner.setNumbers(data.numbers);
    case 'traced':
      return runner.setTraced(data.pins);
    case 'mark':
      return runner.setMark(data.mark, data.at);
    case 'move-mark':
      return runner.moveMark(data.mark, data.name, data.isForward);
    case 'write-trace':
      return runner.writeTrace(data.as);
    case 'step':
      return runner.step();
    case 'time':
      return runner.inTime(data.command);
    case 'stop':
      return runner.stop();
    case 'seen':
      isWanted = true;
  }
});
