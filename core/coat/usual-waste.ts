/** Of what goes through the gun so much more is mixed, and so much stays in cup and gun. Common practice. */
export const USUAL_WASTE = 0.05;
export const USUAL_DEAD_M3 = 30e-6;
