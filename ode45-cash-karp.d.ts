declare module "ode45-cash-karp" {
  interface Integrator {
    y: Float64Array;
    t: number;
    steps(count: number, until: number): boolean;
  }
  /** Adaptive Runge–Kutta of fifth order (Cash & Karp 1990). */
  export default function ode45(
    y0: Float64Array,
    derivative: (dydt: Float64Array, y: Float64Array, t: number) => void,
    t0: number,
    dt0: number,
    options?: { tol?: number; verbose?: boolean },
  ): Integrator;
}
