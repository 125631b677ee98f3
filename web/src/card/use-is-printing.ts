import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed: true before the browser takes its picture. */
export function useIsPrinting(): boolean {
  const [isPrinting, set] = useState(false);
  useEffect(() => {
    const before = (): void => flushSync(() => set(true));
    const after = (): void => set(false);
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return isPrinting;
}
