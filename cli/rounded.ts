/** A number as reports tell it: to a ten-thousandth. */
export const rounded = (value: number): number => Math.round(value * 10_000) / 10_000;
