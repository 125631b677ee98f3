import { Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { fixed } from '../base/numbers';

/** Bytes as people say them. */
export function saysBytes(bytes: number): string {
  const units = ['kB', 'MB', 'GB', 'TB'];
  let [size, unit] = [bytes / 1000, 0];
  while (size >= 1000 && unit < units.length - 1) [size, unit] = [size / 1000, unit + 1];
  return `${size < 10 ? fixed(size, 1) : Math.round(size)} ${units[unit]}`;
}

/** Asks the browser to keep what is here even when it runs out of room; some ask the person. */
export const keepForGood = (): void => void navigator.storage?.persist?.().catch(() => false);

/** With less than so many bytes there is nothing to tell. */
const LEAST_TOLD = 1000;

/** How much this browser keeps here, and how much room is left; nothing where it does not say. */
export function RoomLeft() {
  const [room, setRoom] = useState<string | null>(null);
  useEffect(() => {
    let isGone = false;
    void navigator.storage
      ?.estimate?.()
      .then(({ usage = 0, quota = 0 }) => {
        if (!isGone && usage > LEAST_TOLD)
          setRoom(`${saysBytes(usage)} kept, room for ${saysBytes(Math.max(0, quota - usage))}`);
      })
      .catch(() => {});
    return () => {
      isGone = true;
    };
  }, []);
  return room === null ? null : <Text>{room}</Text>;
}
