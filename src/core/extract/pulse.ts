/**
 * A way to be heard from inside long loops. Whoever runs the core may set a check that throws `Stopped`; loops over very
 * many rows or values call `pulse` now and then. Without one it costs nothing and does nothing.
 */
let check: (() => void) | null = null;

/** @param heard throws where the work is to stop; `null` for none */
export function listen(heard: (() => void) | null): void {
  check = heard;
}

/** Rows or values between two calls of `pulse`; a power of two. */
export const BETWEEN_PULSES = 1 << 16;

/** @throws Stopped where the person stopped the work */
export function pulse(): void {
  check?.();
}
