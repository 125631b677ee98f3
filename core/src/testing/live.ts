import type { LiveSettings } from '../simulation';

/** A live board as it is before anybody sets anything: all off, memory unknown, at real time, nothing looked at. */
export const plainSettings: LiveSettings = {
  subject: null,
  on: [],
  dials: new Map(),
  start: 'unknown',
  bounce: null,
  speed: 1,
  isPaused: false,
  destroyed: new Map(),
  scope: null,
  traced: [],
  sheet: null,
};
