import { afterEach, beforeEach, expect, it, jest } from "@jest/globals";
import { nextFrame } from "./next-frame";

let frames: (() => void)[] = [];
beforeEach(() => {
  frames = [];
  jest.useFakeTimers();
  Object.assign(globalThis, {
    requestAnimationFrame: (run: () => void) => frames.push(run),
    cancelAnimationFrame: (frame: number) => {
      frames[frame - 1] = () => {};
    },
  });
});
afterEach(() => {
  jest.useRealTimers();
});

it("runs with the frame, once", () => {
  let ran = 0;
  nextFrame(() => ran++);
  frames.forEach((frame) => frame());
  jest.advanceTimersByTime(1_000);
  expect(ran).toBe(1);
});

it("runs without a frame, soon, and once", () => {
  let ran = 0;
  nextFrame(() => ran++);
  jest.advanceTimersByTime(200);
  frames.forEach((frame) => frame());
  expect(ran).toBe(1);
});

it("does not run once it is left", () => {
  let ran = 0;
  nextFrame(() => ran++)();
  frames.forEach((frame) => frame());
  jest.advanceTimersByTime(1_000);
  expect(ran).toBe(0);
});
