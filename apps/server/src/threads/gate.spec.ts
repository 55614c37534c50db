import { ahead, letOthersPass, lettingOthersPass, makeGate } from './gate';

const never = (): boolean => false;
const wait = (milliseconds: number): Promise<void> => new Promise((done) => setTimeout(done, milliseconds));

describe('what nobody waits for', () => {
  it('goes on at once where nobody waits for anything else', () => {
    expect(letOthersPass(makeGate(), never, () => undefined)).toBe(false);
  });

  it('pauses while somebody waits, is told so once, and can be cancelled meanwhile', async () => {
    const gate = makeGate();
    let looks = 0;
    let told = 0;
    await ahead(gate, async () => {
      expect(
        letOthersPass(
          gate,
          () => ++looks > 3,
          () => told++,
        ),
      ).toBe(true);
    });
    expect([looks, told]).toEqual([4, 1]);
  });

  it('goes on soon after the last answer, one that failed too', async () => {
    const gate = makeGate();
    await expect(ahead(gate, () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(Atomics.load(gate, 0)).toBe(1);
    await wait(600);
    expect(Atomics.load(gate, 0)).toBe(0);
  });

  it('goes on, if slowly, where somebody asks without end', () => {
    const gate = makeGate();
    Atomics.add(gate, 0, 1);
    const begun = performance.now();
    expect(letOthersPass(gate, never, () => undefined)).toBe(true);
    expect(performance.now() - begun).toBeLessThan(10_000);
  });

  it('works a while between two times of waiting, however often it looks', () => {
    const gate = makeGate();
    Atomics.add(gate, 0, 1);
    let waited = 0;
    const pass = lettingOthersPass(gate, never, () => waited++);
    for (let i = 0; i < 100_000; i++) pass();
    expect(waited).toBeLessThanOrEqual(1);
  });
});
