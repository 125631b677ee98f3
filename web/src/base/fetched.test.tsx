import { render, screen } from '@testing-library/react';
import { Suspense } from 'react';
import { describe, expect, it } from 'vitest';
import { fetched } from './fetched';

const Weir = () => <p>the weir</p>;

function draw({ Shown }: ReturnType<typeof fetched<object>>) {
  return render(
    <Suspense fallback={<p>waiting</p>}>
      <Shown />
    </Suspense>,
  );
}

describe('what is fetched apart', () => {
  it('is fetched when it is drawn, and stands in the place of what stood in for it', async () => {
    const weir = fetched(async () => Weir);
    expect(weir.isHere()).toBe(false);
    draw(weir);
    expect(screen.queryByText('waiting')).not.toBeNull();
    await screen.findByText('the weir');
    expect(weir.isHere()).toBe(true);
  });

  it('is drawn at once where it was fetched before, with nothing standing in', async () => {
    let asked = 0;
    const weir = fetched(async () => {
      asked++;
      return Weir;
    });
    await weir.fetch();
    draw(weir);
    expect(screen.queryByText('waiting')).toBeNull();
    expect(screen.getByText('the weir')).toBeDefined();
    expect(asked).toBe(1);
  });

  it('is asked for again when it is drawn, where it could not be fetched before', async () => {
    let isDown = true;
    const weir = fetched(async () => {
      if (isDown) throw new Error('the server is gone');
      return Weir;
    });
    await expect(weir.fetch()).rejects.toThrow('the server is gone');
    expect(weir.isHere()).toBe(false);
    isDown = false;
    draw(weir);
    await screen.findByText('the weir');
  });
});
