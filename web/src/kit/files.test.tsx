import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { renderPage } from '../testing/render';
import { download, fileName } from './download';
import { PickFile } from './PickFile';

afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
});

describe('names of files', () => {
  it('are made of letters and digits, whatever a job is called, and end as they should', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (name) => {
        const made = fileName(name, '.saddlebag.json');
        expect(made.endsWith('.saddlebag.json')).toBe(true);
        const stem = made.slice(0, -'.saddlebag.json'.length);
        expect(stem).toMatch(/^[\p{L}\p{N}]+(-[\p{L}\p{N}]+)*-?$/u);
        expect(stem.length).toBeLessThanOrEqual(80);
      }),
    );
    expect(
      ['Lock interlock', '  ', '../../etc', 'Schleuse Nº 3: Überlauf'].map((name) => fileName(name, '.csv')),
    ).toEqual([...['Lock-interlock.csv', 'job.csv', 'etc.csv', 'Schleuse-No-3-U-berlauf.csv']]);
  });
});

describe('a file that is handed out', () => {
  it('has its name, its text and its kind, and its address is given back later', async () => {
    vi.useFakeTimers();
    const blobs: Blob[] = [];
    URL.createObjectURL = (blob) => {
      blobs.push(blob as Blob);
      return 'blob:made';
    };
    const given = vi.fn();
    URL.revokeObjectURL = given;
    const clicked: string[] = [];
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      clicked.push(`${this.download} ${this.href}`);
    });
    download('drawer.csv', 'part,count\n', 'text/csv');
    expect(clicked).toEqual(['drawer.csv blob:made']);
    expect([blobs[0]?.type, blobs[0]?.size]).toEqual(['text/csv', 11]);
    expect(given).not.toHaveBeenCalled();
    vi.advanceTimersByTime(10_000);
    expect(given).toHaveBeenCalledWith('blob:made');
  });
});

describe('a file that is picked', () => {
  it('is given on, also when the same one is picked again; none is nothing', async () => {
    const picked: string[] = [];
    renderPage(<PickFile says="Import" label="job file" accept=".json" onPick={(file) => picked.push(file.name)} />);
    const input = screen.getByLabelText('job file');
    const file = new File(['{}'], 'weir.json', { type: 'application/json' });
    await userEvent.upload(input, file);
    await userEvent.upload(input, file);
    fireEvent.change(input, { target: { files: [] } });
    expect(picked).toEqual(['weir.json', 'weir.json']);
  });

  it('is asked for by the button', async () => {
    renderPage(<PickFile says="Import" label="job file" accept=".json" onPick={() => {}} />);
    const opened = vi.spyOn(HTMLInputElement.prototype, 'click');
    await userEvent.click(screen.getByRole('button', { name: 'Import' }));
    expect(opened).toHaveBeenCalledOnce();
  });
});
