const COMPASS = ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"] as const;

/** The nearest of eight directions, north through east, in words. */
export const compass = (deg: number): string => COMPASS[((Math.round(deg / 45) % 8) + 8) % 8]!;
