/** A flow coat is sprayed a little slower, and a little more reduced. Common practice: 5 to 10 % more. */
export const FLOW_COAT = { speedFactor: 0.87, reducerShift: 0.075, coats: 2 } as const;
